import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { addCrewMember, editCrewMember, eraseCrewMember, exportCrew, importCrew, listCrew, noteSick } from './people';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const bytes = (text: string) => new TextEncoder().encode(text);
const named = async (name: string) => {
  const found = (await listCrew(context, {})).people.find((person) => person.name === name);
  if (!found) throw new Error(`${name} is not of the crew.`);
  return found;
};

describe('the crew', () => {
  it('is kept as it was written, told apart by name, and changed by one person at a time', async () => {
    const ada = {
      name: 'Ada Rook',
      contact: '0123',
      isAdult: true,
      skills: [{ skill: 'background check' as const, until: '31 Jan 2027', seen: 'Marit, 12 Nov' }],
      free: 'Thu 14:00-18:00\nnot on 3 Dec 2026',
      mostDuties: '3',
      ratherNot: ['wash up' as const],
    };
    const crewId = await addCrewMember(context, ada);
    expect(await named('Ada Rook')).toMatchObject({
      skills: { 'background check': { until: '2027-01-31', seen: 'Marit, 12 Nov' } },
      free: 'Thu 14:00-18:00; not on 2026-12-03',
      limits: { mostDuties: 3 },
      ratherNot: ['wash up'],
    });
    await expect(addCrewMember(context, { name: 'ada  rook' })).rejects.toMatchObject({
      problems: [{ where: 'name' }],
    });
    await expect(addCrewMember(context, { name: 'Bo', free: 'Thu 18-14' })).rejects.toMatchObject({
      problems: [{ where: 'free', message: expect.stringContaining('“Thu 18-14”') }],
    });
    await editCrewMember(context, { ...ada, crewId, version: 1, contact: '0456' });
    await expect(editCrewMember(context, { ...ada, crewId, version: 1 })).rejects.toMatchObject({ kind: 'stale' });
  });

  it('is off all duties for two days after the last symptom, until it is well or the days are over', async () => {
    const { id: crewId, version } = await named('Ada Rook');
    expect(await noteSick(context, { crewId, version, lastSymptom: '2026-11-20' })).toMatchObject({
      sickUntil: '2026-11-22',
    });
    expect((await named('Ada Rook')).sickUntil).toBe('2026-11-22');
    await noteSick(context, { crewId, version: version + 1, lastSymptom: null });
    expect((await named('Ada Rook')).sickUntil).toBeNull();
  });

  it('comes in as a file and goes out as one: nothing is half-saved, each bad line is named', async () => {
    const file = [
      'name;adult;skills;free;most duties',
      'Cy Tern;yes;lead, driving;Mon 9-12;2',
      'Dot Eider;no;;weekends;',
      'Ada Rook;yes;;;',
      'Eli Gull;perhaps;;;',
      'Fay Wren;yes;;sometimes;',
      'Gus Crake;yes;;;0',
    ].join('\n');
    await expect(importCrew(context, { bytes: bytes(file) })).rejects.toMatchObject({
      problems: expect.arrayContaining([
        { where: 'line 2', message: expect.stringContaining('no skill that is known') },
        { where: 'line 4', message: 'Ada Rook is of the crew already.' },
        { where: 'line 5', message: expect.stringContaining('neither yes nor no') },
        { where: 'line 6', message: expect.stringContaining('“sometimes”') },
        { where: 'line 7', message: 'At least 1.' },
      ]),
    });
    expect((await listCrew(context, {})).people).toHaveLength(1);
    expect(await importCrew(context, { bytes: bytes(file), skip: true })).toEqual({ people: 1, left: 5 });
    const out = await exportCrew(context, {});
    const other = (await newProgramme(store)).coordinator;
    expect(await importCrew(other, { bytes: bytes(out) })).toEqual({ people: 2, left: 0 });
    const plain = ({ people }: Awaited<ReturnType<typeof listCrew>>) =>
      people.map(({ id: _, version: __, ...person }) => person);
    expect(plain(await listCrew(other, {}))).toEqual(plain(await listCrew(context, {})));
  });

  it('is erased: nothing of the person is left but that there was one', async () => {
    const { id: crewId, version } = await named('Dot Eider');
    await eraseCrewMember(context, { crewId, version });
    expect((await listCrew(context, {})).people.map(({ name }) => name)).toEqual(['Ada Rook']);
    const [row] = await store.db.models.crewMember.findAll({ where: { id: crewId }, raw: true });
    expect(JSON.stringify(row)).not.toContain('Eider');
    await expect(editCrewMember(context, { crewId, version: version + 1, name: 'Dot' })).rejects.toMatchObject({
      kind: 'not-found',
    });
  });
});
