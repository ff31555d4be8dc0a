import Link from 'next/link';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { NOT_ASKED, nameKey } from '@/core/roll/roll-row';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { viewRoll } from '@/services/roll/roll';
import type { RollPerson } from '@/services/sheet/person';
import { ActionForm } from '@/ui/action-form';
import { sayShortDate } from '@/ui/dates';
import { Choice } from '@/ui/field';
import { Empty, PageTitle } from '@/ui/page';
import { PersonFields } from '@/ui/roll/person-fields';
import { call, requireMember } from '../../../../../access';
import { add, edit, oneKit, setPersonStatus } from './actions';
import { NotAsked, UnknownWords } from './unknown-words';
import { Waitlist } from './waitlist';

export const metadata = { title: 'Roll' };

const SORTS = { name: 'Name', age: 'Age', servings: 'Servings', avoids: 'Avoids' } as const;

type Sort = keyof typeof SORTS;

interface Query {
  readonly q?: string;
  readonly sort?: string;
  readonly order?: string;
  readonly show?: string;
  readonly edit?: string;
  readonly session?: string;
}

export default async function Roll({
  params,
  searchParams,
}: {
  params: Promise<{ courseId: string }>;
  searchParams: Promise<Query>;
}) {
  const { courseId } = await params;
  const query = await readQuery(searchParams);
  const { course, people, groups, places, modes, reach, reference } = await orNotFound(
    call(viewRoll, { courseId, editing: query.edit ?? '' }),
  );
  const { actor } = await requireMember();
  const enrolled = people.filter((person) => person.status === 'enrolled');
  const shown = sorted(
    people.filter((person) => fits(person, query)),
    query,
  );
  const unknown = [
    ...new Set(enrolled.flatMap((person) => person.wishes.filter((wish) => !wish.codes).map((wish) => wish.asWritten))),
  ].filter((word) => word !== NOT_ASKED);
  const notAsked = enrolled.filter(({ wishes }) => wishes.some(({ asWritten }) => asWritten === NOT_ASKED));
  const href = (change: Partial<Query>) =>
    `?${new URLSearchParams(Object.entries({ ...query, ...change }).filter(([, value]) => value) as [string, string][])}`;
  const editing = people.find((person) => person.id === query.edit);
  return (
    <>
      <PageTitle
        title={`Roll of ${course.title}`}
        over={`${enrolled.length} enrolled, feeding ${enrolled.reduce((sum, person) => sum + person.servings, 0)}. Every session of the course uses this roll.${sayGroups(groups, enrolled)}`}
      >
        {query.session && (
          <Link href={`/sessions/${query.session}/kits`} className="btn">
            Back to the kit sheet
          </Link>
        )}
        <a href={`/courses/${courseId}/roll.csv`} className="btn">
          Take out as CSV
        </a>
        <a href={`/courses/${courseId}/roll.xlsx`} className="btn">
          XLSX
        </a>
        <Link href={`/courses/${courseId}/roll/import`} className="btn btn-primary">
          Bring in a file
        </Link>
      </PageTitle>
      {notAsked.length > 0 && <NotAsked courseId={courseId} people={notAsked} />}
      {unknown.length > 0 && <UnknownWords words={unknown} reference={reference} />}
      <Waitlist
        places={places}
        people={people}
        groups={groups}
        course={course}
        modes={modes}
        coordinator={actor.name}
      />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="flex min-w-0 flex-col gap-3">
          <form aria-label="Filter the roll" className="no-print flex flex-wrap items-end gap-2">
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">Find by name or avoidance</span>
              <input name="q" defaultValue={query.q} className="input w-64" />
            </label>
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">Show</span>
              <select name="show" defaultValue={query.show ?? 'enrolled'} className="select">
                <option value="enrolled">enrolled</option>
                <option value="needs">with avoidances</option>
                <option value="applied">applied</option>
                <option value="waitlisted">waiting</option>
                <option value="withdrawn">withdrawn</option>
                <option value="all">everyone</option>
              </select>
            </label>
            {query.sort && <input type="hidden" name="sort" value={query.sort} />}
            <button type="submit" className="btn">
              Filter
            </button>
            <span className="self-center text-sm" role="status">
              {shown.length} of {people.length} shown
            </span>
          </form>
          {people.length === 0 ? (
            <Empty title="Nobody is on the roll yet">
              <p>
                Bring in the list you have as CSV: name, age, servings, avoids, mode. You see what was understood before
                anything is saved.
              </p>
            </Empty>
          ) : (
            <div className="sheet overflow-x-auto">
              <table className="table">
                <thead>
                  <tr>
                    {(Object.keys(SORTS) as Sort[]).map((key) => (
                      <th
                        key={key}
                        scope="col"
                        aria-sort={ariaSort(key, query)}
                        className={key === 'age' || key === 'servings' ? 'text-right' : ''}
                      >
                        <Link
                          className="link"
                          href={href({
                            sort: key,
                            order: query.sort === key && query.order !== 'down' ? 'down' : 'up',
                          })}
                        >
                          {SORTS[key]}
                        </Link>
                      </th>
                    ))}
                    {groups.length > 0 && <th scope="col">Group</th>}
                    <th scope="col">Mode</th>
                    <th scope="col">
                      <span className="sr-only">Change</span>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {shown.map((person) => (
                    <tr key={person.id} className={person.id === editing?.id ? 'bg-base-200' : ''}>
                      <th scope="row" className="font-semibold">
                        {person.name}
                        {person.status !== 'enrolled' && (
                          <span className="ml-2 badge badge-sm">
                            {STATUS_WORDS[person.status] ?? person.status}
                            {person.since && ` since ${sayShortDate(person.since)}`}
                          </span>
                        )}
                        {siblings(people, person).length > 0 && person.sharedKit === 1 && (
                          <span className="ml-2 text-xs font-normal">
                            one kit with {sayFirst(siblings(people, person))}
                          </span>
                        )}
                      </th>
                      <td className="text-right">{person.age ?? ''}</td>
                      <td className="text-right">{person.servings}</td>
                      <td>
                        <Wishes person={person} />
                      </td>
                      {groups.length > 0 && <td>{groupOf(groups, person)?.name}</td>}
                      <td>{person.mode ?? ''}</td>
                      <td>
                        <span className="flex justify-end gap-1">
                          <Link
                            href={href({ edit: person.id })}
                            className="btn btn-sm"
                            aria-label={`Edit ${person.name}`}
                            scroll={false}
                          >
                            Edit
                          </Link>
                          <ActionForm
                            action={setPersonStatus.bind(
                              null,
                              person.id,
                              person.version,
                              person.status === 'enrolled' ? 'withdrawn' : 'enrolled',
                            )}
                          >
                            <button
                              type="submit"
                              className="btn btn-sm"
                              aria-label={
                                person.status === 'enrolled'
                                  ? `Withdraw ${person.name}`
                                  : `Enrol ${person.name}${person.status === 'withdrawn' ? ' again' : ''}`
                              }
                            >
                              {person.status === 'enrolled'
                                ? 'Withdraw'
                                : person.status === 'withdrawn'
                                  ? 'Enrol again'
                                  : 'Enrol'}
                            </button>
                          </ActionForm>
                        </span>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </div>
        <section className="sheet no-print h-fit p-4" aria-labelledby="person-form">
          {editing ? (
            <>
              <h2 id="person-form" className="mb-3 text-xl font-bold">
                Edit {editing.name}
              </h2>
              <ActionForm
                key={editing.id}
                action={edit.bind(null, editing.id, editing.version)}
                label={`Edit ${editing.name}`}
                className="flex flex-col gap-3"
              >
                <PersonFields person={editing} groups={groups} reach={reach} />
                <div className="flex gap-2">
                  <button type="submit" className="btn btn-primary">
                    Save
                  </button>
                  <Link href={href({ edit: '' })} className="btn" scroll={false}>
                    Close
                  </Link>
                </div>
              </ActionForm>
              <Link href={`/families/${editing.householdId}`} className="link mt-3 block">
                What they have at home and agreed to
              </Link>
              {siblings(people, editing).length > 0 && (
                <form
                  action={oneKit.bind(null, courseId, editing.householdId, editing.sharedKit !== 1)}
                  className="mt-4 border-t border-base-300 pt-3"
                >
                  <p className="mb-2 text-sm">
                    In the household of {sayFirst(siblings(people, editing))}.{' '}
                    {editing.sharedKit === 1
                      ? 'They get one kit, made without what any of them avoids.'
                      : 'Each gets a kit of their own.'}
                  </p>
                  <button type="submit" className="btn btn-sm">
                    {editing.sharedKit === 1 ? 'A kit for each' : 'One kit for all of them'}
                  </button>
                </form>
              )}
            </>
          ) : (
            <>
              <h2 id="person-form" className="mb-3 text-xl font-bold">
                Add a person
              </h2>
              <ActionForm action={add.bind(null, courseId)} label="Add a person" clear className="flex flex-col gap-3">
                <PersonFields groups={groups} />
                <Choice label="Comes as" name="status" defaultValue="enrolled">
                  <option value="enrolled">enrolled; waits when there is no room</option>
                  <option value="applied">applied, nothing decided yet</option>
                  <option value="waitlisted">on the waitlist</option>
                </Choice>
                <button type="submit" className="btn btn-primary w-fit">
                  Add to the roll
                </button>
              </ActionForm>
            </>
          )}
        </section>
      </div>
    </>
  );
}

const STATUS_WORDS: Readonly<Record<string, string>> = { waitlisted: 'waiting' };

/** The others of the household who are enrolled. */
const siblings = (people: readonly RollPerson[], { id, householdId }: RollPerson): RollPerson[] =>
  people.filter((other) => other.householdId === householdId && other.id !== id && other.status === 'enrolled');

const sayFirst = (people: readonly RollPerson[]) => people.map(({ name }) => name).join(', ');

type Groups = readonly { readonly id: string; readonly name: string }[];

/** The group somebody comes with: the first takes whoever is in none. */
const groupOf = (groups: Groups, { groupId }: RollPerson) => groups.find(({ id }) => id === groupId) ?? groups[0];

function sayGroups(groups: Groups, enrolled: readonly RollPerson[]): string {
  if (groups.length === 0) return '';
  const counts = groups.map(
    (group) => `${group.name} ${enrolled.filter((person) => groupOf(groups, person) === group).length}`,
  );
  return ` ${counts.join(', ')}.`;
}

function Wishes({ person }: { person: RollPerson }) {
  if (person.wishes.length === 0) return null;
  return (
    <ul>
      {person.wishes.map((wish) => (
        <li key={wish.asWritten}>
          {wish.asWritten}
          {wish.codes ? (
            <span className="block text-xs text-base-content/80">
              avoids {wish.codes.map(avoidanceLabel).join(', ')}
            </span>
          ) : (
            <span className="block text-xs font-bold text-error">no meaning yet: blocks the kit</span>
          )}
        </li>
      ))}
    </ul>
  );
}

function fits(person: RollPerson, { q = '', show = 'enrolled' }: Query): boolean {
  const wanted = show === 'needs' ? 'enrolled' : show;
  if (wanted !== 'all' && person.status !== wanted) return false;
  if (show === 'needs' && person.wishes.length === 0) return false;
  const words = nameKey([person.name, ...person.wishes.map((wish) => wish.asWritten)].join(' '));
  return words.includes(nameKey(q));
}

function sorted(people: readonly RollPerson[], { sort = 'name', order }: Query): RollPerson[] {
  const value = (person: RollPerson): string | number => {
    if (sort === 'age') return person.age ?? -1;
    if (sort === 'servings') return person.servings;
    if (sort === 'avoids') return person.wishes.map((wish) => wish.asWritten).join(' ');
    return nameKey(person.name);
  };
  const way = order === 'down' ? -1 : 1;
  return [...people].sort((a, b) =>
    value(a) < value(b) ? -way : value(a) > value(b) ? way : a.name.localeCompare(b.name),
  );
}

function ariaSort(key: Sort, { sort = 'name', order }: Query): 'ascending' | 'descending' | undefined {
  if (sort !== key) return undefined;
  return order === 'down' ? 'descending' : 'ascending';
}
