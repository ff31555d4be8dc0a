import { TriangleAlert } from 'lucide-react';
import Link from 'next/link';
import { saying } from '@/app/saying';
import type { viewCoursePlan } from '@/services/plan/courses';
import { AS } from '@/ui/table/stacked';

import { takeFix } from './actions';
import { CancelButton, HoldButton } from './cancel-button';
import { MoveButton } from './move-button';

type Plan = Awaited<ReturnType<typeof viewCoursePlan>>;
type Session = Plan['sessions'][number];
type Conflicts = Plan['conflicts'][number];

/** The sessions of a course, each with what stands against it; groups beside the first under their session. */
export function SessionsTable({
  sessions,
  groups,
  sittings,
  conflicts,
  places,
  today,
}: Pick<Plan, 'sessions' | 'groups' | 'sittings' | 'conflicts' | 'today'> & { places: readonly string[] }) {
  const clashOf = (sessionId: string, groupId: string) =>
    conflicts.find((each) => each.sessionId === sessionId && each.groupId === groupId);
  return (
    <div className="sheet h-fit overflow-x-auto">
      <table {...AS.table} className="table stacked">
        <thead {...AS.rowgroup}>
          <tr {...AS.row}>
            <th scope="col">Session</th>
            <th scope="col">When</th>
            <th scope="col">Place and mode</th>
            <th scope="col">
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody {...AS.rowgroup}>
          {sessions.flatMap((session) => [
            <Meeting
              key={session.id}
              session={session}
              firstName={groups[0]?.name}
              places={places}
              today={today}
              clash={clashOf(session.id, '')}
            />,
            ...sittings
              .filter(
                ({ sessionId, status }) => sessionId === session.id && (status === 'planned' || session.date >= today),
              )
              .map(({ groupName, ...sitting }) => (
                <Meeting
                  key={`${session.id} ${sitting.groupId}`}
                  session={{
                    ...session,
                    ...sitting,
                    status: session.status === 'planned' ? sitting.status : session.status,
                  }}
                  group={{ id: sitting.groupId, name: groupName }}
                  places={places}
                  today={today}
                  clash={clashOf(session.id, sitting.groupId)}
                />
              )),
          ])}
          {sessions.length === 0 && (
            <tr>
              <td colSpan={4}>
                No session yet. Plan a whole season, find a place in the week, or add a single session beside this.
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

/** One line: a session, or one of its groups beside the first. */
async function Meeting({
  session,
  firstName,
  group,
  places,
  today,
  clash,
}: {
  session: Session;
  /** What the first of several groups is called. */
  firstName?: string | undefined;
  group?: { readonly id: string; readonly name: string };
  places: readonly string[];
  today: string;
  clash: Conflicts | undefined;
}) {
  const say = await saying();
  const isCancelled = session.status === 'cancelled';
  const isPast = session.date < today;
  const title = group ? `${session.title} (${group.name})` : session.title;
  const { id, date, startsAt, place } = session;
  const meeting = { id, groupId: group?.id ?? '', title, date, startsAt, place };
  return (
    <tr {...AS.row} className={isPast ? 'text-base-content/80' : ''}>
      <th {...AS.rowheader} scope="row" className={`font-normal ${group ? 'sm:pl-9' : ''}`}>
        {group ? (
          <span className={isCancelled ? 'line-through' : ''}>{group.name}</span>
        ) : (
          <Link href={`/sessions/${session.id}`} className={`link font-bold ${isCancelled ? 'line-through' : ''}`}>
            {session.number}. {session.title}
          </Link>
        )}
        {isCancelled && <span className="ml-2 badge badge-sm badge-outline">cancelled</span>}
        {firstName && <span className="block">{firstName}</span>}
        {!group && session.because && <span className="block text-sm">{say.text(session.because)}</span>}
        {clash && <Clash version={session.version} clash={clash} />}
      </th>
      <td {...AS.cell} className="whitespace-nowrap">
        {say.shortDate(session.date)}
        <span className="block text-sm">
          {say.time(session.startsAt)}, {session.minutes} min
        </span>
      </td>
      <td {...AS.cell}>
        {session.place}
        <span className="block text-sm">{session.mode}</span>
      </td>
      <td {...AS.cell}>
        <span className="flex justify-end gap-1">
          {!isCancelled && <MoveButton session={meeting} places={places} />}
          {!isPast && !isCancelled && <CancelButton session={meeting} />}
          {!isPast && isCancelled && <HoldButton session={{ ...meeting, version: session.version }} />}
        </span>
      </td>
    </tr>
  );
}

/** What stands against a session, with the ways out that were tried. */
async function Clash({ version, clash }: { version: number; clash: Conflicts }) {
  const { text } = await saying();
  const { sessionId, groupId, conflicts, fixes } = clash;
  return (
    <div className="mt-2 rounded-box border-l-4 border-error bg-error/10 p-2 text-sm">
      {conflicts.map(({ say }) => (
        <p key={say} className="flex gap-1.5 font-semibold">
          <TriangleAlert size={16} className="mt-0.5 shrink-0 text-error" aria-hidden="true" />
          {text(say)}
        </p>
      ))}
      <div className="mt-1 flex flex-wrap gap-1.5">
        {fixes.map((fix) => (
          <form key={fix.say} action={takeFix.bind(null, sessionId, groupId, version, fix.change)}>
            <button type="submit" className="btn btn-sm">
              {text(fix.say)}
            </button>
          </form>
        ))}
        {fixes.length === 0 && <span>Nothing that was tried settles it: move it by hand, or cancel it.</span>}
      </div>
    </div>
  );
}
