import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { NOT_ASKED } from '@/core/roll/roll-row';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { viewRoll } from '@/services/roll/roll';
import type { RollPerson } from '@/services/sheet/person';
import { ComeIntoView } from '@/ui/come-into-view';
import { Empty, PageTitle } from '@/ui/page';
import { SaveAs } from '@/ui/save-as';
import { AddPerson, EditPerson } from './person-panel';
import { type RollLine, RollTable } from './roll-table';
import { NotAsked, UnknownWords } from './unknown-words';
import { Waitlist } from './waitlist';

export const metadata = { title: 'Roll' };

interface Query {
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
  const { course, people, groups, places, modes, cells, reference } = await orNotFound(
    call(viewRoll, { courseId, editing: query.edit ?? '' }),
  );
  const { actor } = await requireMember();
  const enrolled = people.filter((person) => person.status === 'enrolled');
  const unknown = [
    ...new Set(enrolled.flatMap((person) => person.needs.filter((need) => !need.codes).map((need) => need.asWritten))),
  ].filter((word) => word !== NOT_ASKED);
  const notAsked = enrolled.filter(({ needs }) => needs.some(({ asWritten }) => asWritten === NOT_ASKED));
  const editing = people.find((person) => person.id === query.edit);
  const { edit: _, ...without } = query;
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
        <SaveAs
          files={[
            ['Workbook (XLSX)', `/courses/${courseId}/roll.xlsx`],
            ['CSV', `/courses/${courseId}/roll.csv`],
          ]}
        />
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
        {people.length === 0 ? (
          <Empty title="Nobody is on the roll yet">
            <p>
              Bring in the list you have as CSV: name, age, servings, avoids, mode. You see what was understood before
              anything is saved.
            </p>
          </Empty>
        ) : (
          <RollTable
            courseId={courseId}
            people={people.map((person) => lineOf(person, people, groups))}
            groups={groups}
          />
        )}
        <section
          className={`sheet no-print h-fit p-4 ${editing ? 'order-first lg:order-none' : ''}`}
          aria-labelledby="person-form"
        >
          {editing && <ComeIntoView key={editing.id} />}
          {editing && cells ? (
            <EditPerson
              courseId={courseId}
              person={editing}
              groups={groups}
              cells={cells}
              siblings={siblingsOf(people, editing)}
              close={`?${new URLSearchParams(without)}`}
            />
          ) : (
            <AddPerson courseId={courseId} groups={groups} />
          )}
        </section>
      </div>
    </>
  );
}

/** Names of the others of the household who are enrolled. */
const siblingsOf = (people: readonly RollPerson[], { id, householdId }: RollPerson): string =>
  people
    .filter((other) => other.householdId === householdId && other.id !== id && other.status === 'enrolled')
    .map(({ name }) => name)
    .join(', ');

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

const lineOf = (person: RollPerson, people: readonly RollPerson[], groups: Groups): RollLine => {
  const { id, version, name, age, servings, status, since, mode, sharedKit, needs } = person;
  return {
    ...{ id, version, name, age, servings, status, since },
    group: groupOf(groups, person)?.name ?? '',
    mode: mode ?? '',
    kitWith: sharedKit === 1 ? siblingsOf(people, person) : '',
    avoids: needs.map(({ asWritten, codes }) => ({ asWritten, means: codes ? codes.map(avoidanceLabel) : null })),
  };
};
