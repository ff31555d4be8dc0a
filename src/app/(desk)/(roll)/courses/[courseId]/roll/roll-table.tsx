'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useTransition } from 'react';
import { MODES } from '@/core/plan/mode';
import { ActionForm } from '@/ui/form/action-form';
import { notify } from '@/ui/notices';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';
import { useAddress } from '@/ui/table/use-address';
import { setNextTime, setPersonStatus, setSeveral, withdrawSeveral } from './actions';

/** Somebody of the roll, as the table shows them. */
export interface RollLine {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly age: number | null;
  readonly servings: number;
  readonly status: string;
  /** Since when they are what they are; null where nobody wrote it down. */
  readonly since: string | null;
  readonly group: string;
  readonly mode: string;
  /** With whom they share a kit; '' where they have one of their own. */
  readonly kitWith: string;
  /** What they avoid as the family wrote it, with what that means: labels, or null where it has no meaning yet. */
  readonly avoids: readonly { readonly asWritten: string; readonly means: readonly string[] | null }[];
}

const STATUS_WORDS: Readonly<Record<string, string>> = { waitlisted: 'waiting' };

const SHOWN: readonly (readonly [show: string, say: string])[] = [
  ['enrolled', 'enrolled'],
  ['needs', 'with avoidances'],
  ['applied', 'applied'],
  ['waitlisted', 'waiting'],
  ['withdrawn', 'withdrawn'],
  ['all', 'everyone'],
];

const fits = ({ status, avoids }: RollLine, show: string) =>
  show === 'all' || (show === 'needs' ? status === 'enrolled' && avoids.length > 0 : status === show);

/** Everybody of a roll: found, sorted, changed one by one or several at once. */
export function RollTable({
  courseId,
  people,
  groups,
}: {
  courseId: string;
  people: readonly RollLine[];
  groups: readonly { readonly id: string; readonly name: string }[];
}) {
  const hasGroups = groups.length > 0;
  const [address, setAddress] = useAddress();
  const router = useRouter();
  const show = address.show ?? 'enrolled';
  const rows = useMemo(() => people.filter((person) => fits(person, show)), [people, show]);
  const columns = useMemo(() => columnsOf(hasGroups), [hasGroups]);
  const edit = ({ id }: RollLine) => {
    const query = new URLSearchParams(window.location.search);
    query.set('edit', id);
    router.push(`?${query}`, { scroll: false });
  };
  return (
    <DataTable
      label="Roll"
      rows={rows}
      of={people.length}
      idOf={({ id }) => id}
      columns={columns}
      find="Find by name or avoidance"
      current={address.edit}
      open={edit}
      choices={
        <label className="flex flex-col gap-1">
          <span className="text-sm font-semibold">Show</span>
          <select
            className="select"
            value={show}
            onChange={({ currentTarget: { value } }) => setAddress({ show: value === 'enrolled' ? '' : value })}
          >
            {SHOWN.map(([value, say]) => (
              <option key={value} value={value}>
                {say}
              </option>
            ))}
          </select>
        </label>
      }
      actions={(person) => (
        <span className="flex justify-end gap-1">
          <button type="button" className="btn btn-sm" aria-label={`Edit ${person.name}`} onClick={() => edit(person)}>
            Edit
          </button>
          <StatusButton person={person} />
        </span>
      )}
      forSelected={(selected, clear) => (
        <>
          <ChangeSeveral courseId={courseId} people={selected} groups={groups} />
          <Withdraw people={selected} done={clear} />
        </>
      )}
    />
  );
}

const columnsOf = (hasGroups: boolean): TableColumn<RollLine>[] => [
  { id: 'name', header: 'Name', isName: true, value: ({ name }) => name, show: (person) => <Name person={person} /> },
  { id: 'age', header: 'Age', isNumber: true, value: ({ age }) => age ?? -1, show: ({ age }) => age ?? '' },
  { id: 'servings', header: 'Servings', isNumber: true, value: ({ servings }) => servings },
  {
    id: 'avoids',
    header: 'Avoids',
    value: ({ avoids }) => avoids.map(({ asWritten }) => asWritten).join(' '),
    show: (person) => <Avoids person={person} />,
  },
  ...(hasGroups
    ? [{ id: 'group', header: 'Group', isShort: true as const, value: ({ group }: RollLine) => group }]
    : []),
  { id: 'mode', header: 'Mode', isShort: true, value: ({ mode }) => mode },
];

function Name({ person: { name, status, since, kitWith } }: { person: RollLine }) {
  const say = useSaying();
  return (
    <>
      {name}
      {status !== 'enrolled' && (
        <span className="ml-2 badge badge-sm">
          {STATUS_WORDS[status] ?? status}
          {since && ` since ${say.shortDate(since)}`}
        </span>
      )}
      {kitWith && <span className="ml-2 text-xs font-normal">one kit with {kitWith}</span>}
    </>
  );
}

function Avoids({ person: { avoids } }: { person: RollLine }) {
  if (avoids.length === 0) return null;
  return (
    <ul>
      {avoids.map(({ asWritten, means }) => (
        <li key={asWritten}>
          {asWritten}
          {means ? (
            <span className="block text-xs text-base-content/80">avoids {means.join(', ')}</span>
          ) : (
            <span className="block text-xs font-bold text-error">no meaning yet: blocks the kit</span>
          )}
        </li>
      ))}
    </ul>
  );
}

function StatusButton({ person: { id, version, name, status, since } }: { person: RollLine }) {
  const next = status === 'enrolled' ? 'withdrawn' : 'enrolled';
  const again = status === 'withdrawn' ? ' again' : '';
  return (
    <ActionForm action={setPersonStatus.bind(null, { id, version, name, status, since }, next)}>
      <button
        type="submit"
        className="btn btn-sm"
        aria-label={next === 'withdrawn' ? `Withdraw ${name}` : `Enrol ${name}${again}`}
      >
        {next === 'withdrawn' ? 'Withdraw' : `Enrol${again}`}
      </button>
    </ActionForm>
  );
}

/** The mode, the group or the servings of those that are selected, changed together. */
function ChangeSeveral({
  courseId,
  people,
  groups,
}: {
  courseId: string;
  people: readonly RollLine[];
  groups: readonly { readonly id: string; readonly name: string }[];
}) {
  const [pending, start] = useTransition();
  const change = (part: Parameters<typeof setSeveral>[0][number] | object, said: string) =>
    start(async () => {
      const answer = await setSeveral(
        people.map(({ id, version }) => ({ enrolmentId: id, version, ...part })),
        said,
      );
      await notify({ message: answer.message ?? '', undo: answer.undo });
    });
  const nextTime = (how: 'take-home' | 'away') =>
    start(async () => {
      const enrolled = people.filter(({ status }) => status === 'enrolled').map(({ id }) => id);
      const answer = await setNextTime(courseId, enrolled, how);
      await notify({ message: answer.message ?? '', undo: answer.undo });
    });
  const choose = (
    label: string,
    options: readonly (readonly [string, string])[],
    take: (value: string, said: string) => void,
  ) => (
    <select
      className="select select-sm w-44"
      aria-label={`${label} of those selected`}
      disabled={pending}
      value=""
      onChange={({ currentTarget: { value } }) => {
        const said = options.find(([key]) => key === value)?.[1];
        if (said) take(value, said);
      }}
    >
      <option value="">{label} …</option>
      {options.map(([key, title]) => (
        <option key={key} value={key}>
          {title}
        </option>
      ))}
    </select>
  );
  return (
    <>
      {choose(
        'Mode',
        [['as the session', 'as the session'], ...MODES.map((mode) => [mode, mode] as const)],
        (value, said) => change({ mode: MODES.find((mode) => mode === value) ?? null }, said),
      )}
      {groups.length > 0 &&
        choose(
          'Group',
          groups.map(({ id, name }) => [id, name]),
          (value, said) => change({ groupId: groups[0]?.id === value ? null : value }, said),
        )}
      {choose(
        'Servings',
        [1, 2, 3, 4, 5, 6, 8].map((count) => [String(count), `feeds ${count}`]),
        (value, said) => change({ servings: Number(value) }, said),
      )}
      {choose(
        'Next session',
        [
          ['take-home', 'kit home'],
          ['away', 'away'],
        ],
        (value) => nextTime(value === 'away' ? 'away' : 'take-home'),
      )}
    </>
  );
}

function Withdraw({ people, done }: { people: readonly RollLine[]; done: () => void }) {
  const [pending, start] = useTransition();
  const enrolled = people.filter(({ status }) => status === 'enrolled');
  if (enrolled.length === 0) return null;
  return (
    <button
      type="button"
      className="btn btn-sm"
      disabled={pending}
      onClick={() =>
        start(async () => {
          const answer = await withdrawSeveral(enrolled.map(({ id, version, since }) => ({ id, version, since })));
          await notify({ message: answer.message ?? '', undo: answer.undo });
          if (answer.ok) done();
        })
      }
    >
      Withdraw {enrolled.length === 1 ? 'this one' : `these ${enrolled.length}`}
    </button>
  );
}
