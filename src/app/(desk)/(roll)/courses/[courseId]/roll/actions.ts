'use server';

import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { ROLL_COLUMNS, type RollCells } from '@/core/roll/roll-row';
import type { InputOf } from '@/services/gate/gate';
import { giveMeaning } from '@/services/programme/programme';
import { setAway, setSeveralAway, shareKit } from '@/services/roll/away';
import { addPerson, changeSeveral, editPerson, sayTheyWereAsked, setStatus, setStatuses } from '@/services/roll/roll';
import { saveRoll } from '@/services/roll/roll-file';
import type { FormState } from '@/ui/form/form-state';

const cellsOf = (data: FormData): Required<RollCells> => {
  const sent = fields(data);
  return Object.fromEntries(ROLL_COLUMNS.map((column) => [column, sent[column] ?? ''])) as Required<RollCells>;
};

export async function add(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(addPerson, async () => {
    const cells = cellsOf(data);
    const { status } = await call(addPerson, { courseId, cells, status: fields(data).status || 'enrolled' });
    return status === 'enrolled'
      ? `${cells.name.trim()} is on the roll.`
      : `${cells.name.trim()} is ${status === 'waitlisted' ? 'on the waitlist: there is no room, or you asked for it' : status}.`;
  });
}

export async function edit(
  enrolmentId: string,
  version: number,
  was: Required<RollCells>,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(editPerson, async () => {
    const { shownContact: contact = '', shownAddress: address = '' } = fields(data);
    const cells = cellsOf(data);
    await call(editPerson, { enrolmentId, version, cells, shown: { contact, address } });
    return {
      message: `${cells.name.trim()} is saved.`,
      undo: putBack.bind(null, enrolmentId, version + 1, was, cells),
    };
  });
}

/** Puts somebody's row back as it was; refused when somebody changed it since. */
export async function putBack(
  enrolmentId: string,
  version: number,
  was: Required<RollCells>,
  { contact, address }: Required<RollCells>,
): Promise<FormState> {
  return attempt(editPerson, async () => {
    await call(editPerson, { enrolmentId, version, cells: was, shown: { contact, address } });
    return `${was.name} is as before.`;
  });
}

const DONE: Readonly<Record<string, string>> = { withdrawn: 'withdrawn', enrolled: 'enrolled', waitlisted: 'waiting' };

/** Somebody as they stand on the roll. */
interface Standing {
  readonly id: string;
  readonly version: number;
  readonly since: string | null;
}

export async function setPersonStatus(
  { name, status: was, ...person }: Standing & { readonly name: string; readonly status: string },
  status: string,
): Promise<FormState> {
  return attempt(setStatus, async () => {
    await call(setStatus, { enrolmentId: person.id, version: person.version, status });
    const undo = takeStatusBack.bind(null, [person], was);
    return { message: `${name} is ${DONE[status] ?? status}.`, undo };
  });
}

/** Withdraws several people at once: all of them, or nobody. */
export async function withdrawSeveral(people: readonly Standing[]): Promise<FormState> {
  return attempt(setStatuses, async () => {
    await call(setStatuses, {
      people: people.map(({ id, version }) => ({ enrolmentId: id, version })),
      status: 'withdrawn',
    });
    const message = people.length === 1 ? 'One person is withdrawn.' : `${people.length} people are withdrawn.`;
    return { message, undo: takeStatusBack.bind(null, people, 'enrolled') };
  });
}

/** How several people take part in the next session of their course. */
export async function setNextTime(
  courseId: string,
  enrolmentIds: string[],
  how: 'take-home' | 'away' | 'usual',
): Promise<FormState> {
  return attempt(setSeveralAway, async () => {
    const { id, title, date, before } = await call(setSeveralAway, { courseId, enrolmentIds, how });
    const said = { 'take-home': 'kit home', away: 'away', usual: 'as usual' }[how];
    const who = enrolmentIds.length === 1 ? 'One person' : `${enrolmentIds.length} people`;
    return {
      message: `${who}, ${said}: ${title}, ${(await saying()).shortDate(date)}.`,
      undo: putWhoComesBack.bind(null, id, before),
    };
  });
}

/** Everybody takes part in a session as before. */
async function putWhoComesBack(sessionId: string, people: InputOf<typeof setAway>['people']): Promise<FormState> {
  return attempt(setAway, async () => {
    await call(setAway, { sessionId, people });
    return 'It is as it was before.';
  });
}

type Several = InputOf<typeof changeSeveral>['people'];

/** Changes several people at once: all of them, or nobody. */
export async function setSeveral(people: Several, said: string): Promise<FormState> {
  return attempt(changeSeveral, async () => {
    const before = await call(changeSeveral, { people });
    const message = `${people.length === 1 ? 'One person' : `${people.length} people`}: ${said}.`;
    return { message, undo: setSeveral.bind(null, before as Several, 'as before') };
  });
}

/** Everybody is what they were, since when they were it; refused when somebody was changed since. */
export async function takeStatusBack(people: readonly Standing[], status: string): Promise<FormState> {
  return attempt(setStatuses, async () => {
    const before = people.map(({ id, version, since }) => ({ enrolmentId: id, version: version + 1, since }));
    await call(setStatuses, { people: before, status });
    return 'Taken back.';
  });
}

/** Enrols whoever is next and puts the worded offer into the outbox. */
export async function offerPlace(
  enrolmentId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  return attempt(setStatus, async () => {
    const { subject = '', body = '' } = fields(data);
    const message = data.get('tell') === 'on' ? { message: { subject, body } } : {};
    await call(setStatus, { enrolmentId, version, status: 'enrolled', ...message });
    return undefined;
  });
}

export async function oneKit(courseId: string, householdId: string, share: boolean): Promise<void> {
  await attempt(shareKit, async () => {
    await call(shareKit, { courseId, householdId, share });
    return undefined;
  });
}

export async function giveWord(word: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(giveMeaning, async () => {
    const nothing = data.get('nothing') === 'on';
    await call(giveMeaning, {
      word,
      // What was ticked as likely is no answer where somebody says that it is none.
      codes: nothing ? [] : data.getAll('codes').map(String),
      foods: nothing ? [] : data.getAll('foods').map(String),
      nothing,
      isFirst: true,
    });
    return undefined;
  });
}

export async function wereAsked(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(sayTheyWereAsked, async () => {
    await call(sayTheyWereAsked, { courseId, enrolmentIds: data.getAll('person').map(String) });
    return undefined;
  });
}

export async function saveImport(
  courseId: string,
  rows: readonly {
    line: number;
    cells: RollCells;
    leaveOut?: boolean;
    beyond?: readonly string[];
    as?: 'update' | 'new';
    home?: 'same' | 'other';
  }[],
  columns: Readonly<Record<string, string | null>>,
): Promise<FormState> {
  return attempt(saveRoll, async () => {
    const { saved, updated, waiting } = await call(saveRoll, { courseId, rows, columns });
    const said = `${saved - waiting} ${saved - waiting === 1 ? 'person is' : 'people are'} on the roll.`;
    return [
      said,
      updated > 0 ? `${updated} updated.` : '',
      waiting > 0 ? `${waiting} wait: the course has no more room.` : '',
    ]
      .filter(Boolean)
      .join(' ');
  });
}
