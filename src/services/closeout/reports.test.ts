import ExcelJS from 'exceljs';
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import { noteIncident } from '../classday/incidents';
import type { Context, Role } from '../gate/gate';
import { addSession } from '../plan/sessions';
import { removeFunder, saveFunder, viewFunder } from './funders';
import { exportReport, viewReport } from './reports';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const at = (context: Context, day: string): Context => ({
  ...context,
  clock: () => Temporal.Instant.from(`${day}T18:00:00Z`),
});
const LATER = '2026-12-20';
/** A picture of one dot. */
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const NAMES = ['Ada Quill', 'Bo Fenn', 'Cleo Marsh', 'Dov Reed', 'Edda Sole', 'Finn Tarn'];
const plan = { title: 'Pots', startsAt: '16:00', minutes: 60, place: 'Boatshed', mode: 'in person' };

/** Two classes of six children: all came to the first, half to the second. */
async function newPast() {
  own = await newProgramme(store);
  const made = await newSession(
    own.coordinator,
    NAMES.map((name) => ({ name, age: '9', avoids: 'milk' })),
  );
  const second = await addSession(own.coordinator, { courseId: made.courseId, ...plan, date: '2026-12-03' });
  await addSession(own.coordinator, { courseId: made.courseId, ...plan, title: 'To come', date: '2026-12-28' });
  const mark = (sessionId: string, enrolmentId: string | undefined, state: string, day: string) =>
    recordAttendance(at(own.coordinator, day), { sessionId, id: v7(), enrolmentId, state });
  for (const [n, person] of made.people.entries()) {
    await mark(made.sessionId, person, 'came', '2026-11-26');
    await mark(second, person, n < 3 ? 'came' : 'absent', '2026-12-03');
  }
  const said = async (asked: object, key: string) =>
    (await viewReport(at(own.coordinator, LATER), asked)).figures.find((figure) => figure.key === key)?.said;
  return { ...made, second, said };
}

describe('a report', () => {
  it('is of what is over: a span, a course, or one session, each person counted once', async () => {
    const { courseId, second, said } = await newPast();
    expect(await said({}, 'sessions')).toBe('2');
    expect(await said({ courseId }, 'reached')).toBe('6');
    expect(await said({ courseId }, 'places')).toBe('9');
    expect(await said({ courseId }, 'attendance')).toBe('75 %');
    expect(await said({ sessionId: second }, 'attendance')).toBe('50 %');
    expect(await said({ courseId }, 'contact')).toBe('12 hours');
    expect(await said({ from: '2026-12-01', to: '2026-12-31' }, 'sessions')).toBe('1');
    const { bars, saysBars } = await viewReport(at(own.coordinator, LATER), { courseId });
    expect(bars.map(({ value }) => value)).toEqual([100, 50]);
    expect(saysBars).toContain('least in Thu, Dec 3 Pots (50 %)');
    await expect(viewReport(own.coordinator, { from: '2026-12-02', to: '2026-12-01' })).rejects.toMatchObject({
      problems: [{ where: 'to', message: 'It ends before it begins.' }],
    });
    const foreign = await newProgramme(store);
    await expect(viewReport(foreign.coordinator, { courseId })).rejects.toMatchObject({ kind: 'not-found' });
  });

  it('takes at most eleven queries, however many sessions there are', async () => {
    const { courseId } = await newPast();
    const asked = async () => {
      const before = store.queries();
      await viewReport(at(own.coordinator, LATER), {});
      return store.queries() - before;
    };
    const few = await asked();
    for (let day = 4; day < 16; day++)
      await addSession(own.coordinator, { courseId, ...plan, date: `2026-12-${String(day).padStart(2, '0')}` });
    expect(await asked()).toBe(few);
    expect(few).toBeLessThanOrEqual(11);
  });

  it('names no child and no need in any file, and hides a single incident', async () => {
    const { courseId, sessionId, people, said } = await newPast();
    await noteIncident(at(own.coordinator, '2026-11-26'), {
      id: v7(),
      sessionId,
      enrolmentId: people[0],
      hurt: 'cut',
      words: 'Ada cut her thumb',
      told: 'her father',
    });
    expect(await said({ courseId }, 'incidents')).toBe('fewer than 5');
    const later = at(own.coordinator, LATER);
    const csv = String((await exportReport(later, { courseId, as: 'csv' })).body);
    expect(csv).toContain('Places taken');
    const xlsx = (await exportReport(later, { courseId, as: 'xlsx' })).body as Uint8Array;
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(xlsx as never);
    const texts = book.worksheets.flatMap((sheet) =>
      sheet.getSheetValues().flatMap((row) => JSON.stringify(row ?? '')),
    );
    for (const word of [...NAMES.flatMap((name) => name.split(' ')), 'milk', 'thumb'])
      expect(`${csv}${texts.join(' ')}`).not.toContain(word);
    const pdf = (await exportReport(later, { courseId, as: 'pdf' })).body as Uint8Array;
    expect(Buffer.from(pdf.slice(0, 5)).toString()).toBe('%PDF-');
  });

  it('as a workbook is live: each formula says what stands beside it', async () => {
    const { courseId } = await newPast();
    const { body } = await exportReport(at(own.coordinator, LATER), { courseId, as: 'xlsx' });
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(body as never);
    const [sheet, rows] = [book.getWorksheet('Report'), book.getWorksheet('Sessions')];
    const row = (label: string) => {
      for (let at = 5; at <= (sheet?.rowCount ?? 0); at++)
        if (sheet?.getCell(at, 1).value === label)
          return sheet.getCell(at, 2).value as { formula: string; result: number };
      return undefined;
    };
    // Added up by hand from the other sheet: what a spreadsheet program would show.
    const sumOf = (formula: string) => {
      const [, column = '', from = '', to = ''] =
        /SUM\(Sessions!\$([A-Z]+)\$(\d+):\$[A-Z]+\$(\d+)\)/.exec(formula) ?? [];
      let sum = 0;
      for (let at = Number(from); at <= Number(to); at++) sum += Number(rows?.getCell(`${column}${at}`).value ?? 0);
      return sum;
    };
    for (const label of ['Places taken', 'Contact hours', 'Kits made', 'Servings']) {
      const cell = row(label);
      expect(cell?.formula, label).toMatch(/^SUM\(Sessions!/);
      expect(sumOf(cell?.formula ?? ''), label).toBeCloseTo(cell?.result ?? 0, 6);
    }
    expect(row('Attendance')).toMatchObject({ result: 0.75, formula: expect.stringContaining('IF(SUM(') });
  });
});

describe('somebody who is reported to', () => {
  it('has their own words, period and money, and a logo that is a picture', async () => {
    const { said } = await newPast();
    const png = new Uint8Array(Buffer.from(DOT, 'base64'));
    const funder = {
      name: 'Quay Trust',
      intro: 'For the year.',
      words: { reached: 'Beneficiaries' },
      fromDay: '2026-12-01',
      toDay: '2026-12-31',
      currency: 'QD',
      rate: '0,5',
    };
    const funderId = await saveFunder(own.coordinator, { ...funder, logo: png });
    expect(await said({ funderId }, 'sessions')).toBe('1');
    const { figures, intro } = await viewReport(at(own.coordinator, LATER), { funderId });
    expect(figures.find(({ key }) => key === 'reached')?.label).toBe('Beneficiaries');
    expect(intro).toBe('For the year.');
    expect(await viewFunder(own.coordinator, { funderId })).toMatchObject({ hasLogo: true, rate: '0.5' });
    const pdf = (await exportReport(at(own.coordinator, LATER), { funderId, as: 'pdf' })).body as Uint8Array;
    expect(Buffer.from(pdf).includes('/Subtype /Image')).toBe(true);
    const wrong = { ...funder, funderId, version: 1 };
    await expect(saveFunder(own.coordinator, { ...wrong, logo: new Uint8Array([1, 2]) })).rejects.toMatchObject({
      problems: [{ where: 'logo', message: 'The logo is a PNG or JPEG of at most 500 kB.' }],
    });
    await expect(saveFunder(own.coordinator, { ...wrong, fromDay: '2027-01-01' })).rejects.toMatchObject({
      problems: [{ where: 'toDay' }],
    });
    await expect(saveFunder(own.coordinator, { ...wrong, rate: '-1' })).rejects.toMatchObject({
      problems: [{ where: 'rate' }],
    });
    await saveFunder(own.coordinator, wrong);
    await expect(saveFunder(own.coordinator, wrong)).rejects.toMatchObject({ kind: 'stale' });
    await removeFunder(own.coordinator, { funderId });
    await expect(viewReport(own.coordinator, { funderId })).rejects.toMatchObject({ kind: 'not-found' });
  });
});
