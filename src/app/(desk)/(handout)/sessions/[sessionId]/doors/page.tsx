import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { viewDoors } from '@/services/handout/doors';
import { moveDoors } from '@/services/handout/rounds';

import { RoundsBoard } from '@/ui/handout/rounds-board';
import { RoundsMap } from '@/ui/handout/rounds-map';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { DoorList } from './door-list';
import { PlanRounds } from './plan-rounds';
import { RoadsForm } from './roads-form';

export const metadata = { title: 'Doors and rounds' };

async function move(sessionId: string, rounds: readonly { id: string; version: number; stops: readonly string[] }[]) {
  'use server';
  const { ok, message } = await attempt(moveDoors, async () => {
    await call(moveDoors, { sessionId, rounds });
    return 'Saved.';
  });
  return { ok, ...(message ? { message } : {}) };
}

interface Params {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

/** The doors that kits go to, and the rounds of those who bring them. */
export default async function Doors({ params, searchParams }: Params) {
  const say = await saying();
  const { sessionId } = await params;
  const { group: wanted } = await searchParams;
  const found = await orNotFound(call(viewDoors, { sessionId }));
  const { session, meetings, roads, usualRoads } = found;
  const meeting = meetings.find(({ group }) => group === wanted) ?? meetings[0];
  const doors = found.doors.filter(({ group }) => group === (meeting?.group ?? ''));
  const ids = new Set(doors.map(({ householdId }) => householdId));
  const rounds = found.rounds.filter(({ stops }) => stops.some(({ householdId }) => ids.has(householdId)));
  const missed = found.missed.filter(({ householdId }) => ids.has(householdId));
  const withoutPoint = doors.filter(({ door }) => !door.at).length;
  return (
    <>
      <PageTitle
        title="Doors and rounds"
        over={`${session.courseTitle} · ${session.title} · ${say.longDate(meeting?.date ?? session.date)}`}
      >
        <Link href={`/sessions/${sessionId}/handout`} className="btn">
          Hand-out
        </Link>
        <a href={`/sessions/${sessionId}/doors.csv`} className="btn">
          Doors as CSV
        </a>
        <PrintButton />
      </PageTitle>
      {meetings.length > 1 && (
        <nav aria-label="Groups" className="no-print mb-4 flex flex-wrap gap-2">
          {meetings.map(({ group, date }) => (
            <Link
              key={group}
              href={`/sessions/${sessionId}/doors?group=${encodeURIComponent(group)}`}
              aria-current={group === meeting?.group ? 'page' : undefined}
              className={`btn btn-sm ${group === meeting?.group ? 'btn-primary' : ''}`}
            >
              {group}, {say.longDate(date)}
            </Link>
          ))}
        </nav>
      )}
      {doors.length === 0 ? (
        <Empty title="No kit of this session goes to a door">
          <p>
            Kits of online classes, and of those who cook later, are brought. A kit that nobody fetched can be too: say
            so under “Kits not fetched”.
          </p>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          <p className="text-lg">
            <b>{sayCount(doors.length, 'door', 'doors')}</b>
            {withoutPoint > 0 && `, ${withoutPoint} without a point on the map`}; {rounds.length} rounds planned
            {missed.length > 0 && `, ${sayCount(missed.length, 'door is', 'doors are')} in none`}.
          </p>
          {roads && doors.length > withoutPoint && (
            <RoundsMap
              kitchen={roads.kitchen}
              ways={rounds.map(({ driver, stops }) => ({
                name: driver.name,
                isHome: driver.home === true,
                stops: stops.flatMap(({ householdId, name, door }) =>
                  door.at ? [{ householdId, name, at: door.at }] : [],
                ),
              }))}
              left={doors.flatMap(({ householdId, name, door }) =>
                door.at && missed.some((each) => each.householdId === householdId) ? [{ name, at: door.at }] : [],
              )}
            />
          )}
          {rounds.length > 0 && (
            <RoundsBoard
              key={rounds.map(({ id, version }) => `${id} ${version}`).join()}
              given={found.given}
              rounds={rounds.map(({ id, version, driver, leftAt, endedAt, stops, standing }) => ({
                id,
                version,
                name: driver.name,
                driver,
                leftAt,
                stops: stops.map(({ householdId }) => householdId),
                going: endedAt
                  ? 'The round is over.'
                  : leftAt
                    ? `Left at ${say.timeAt(leftAt)}: ${standing.done} of ${stops.length} doors done${
                        standing.ahead[0] ? `, next at about ${say.time(standing.ahead[0].begins)}` : ''
                      }${standing.coldLeft === undefined ? '' : `, ${standing.coldLeft} minutes left for what is cold`}.`
                    : '',
              }))}
              doors={doors.map(({ householdId, name, address, bags, isCold }) => ({
                householdId,
                name,
                address,
                kits: `kit ${bags.map(({ number, variant }) => `${number} ${variant}`).join(', ')}`,
                isCold,
                said: bags.some(({ isCalledBack }) => isCalledBack)
                  ? 'called back: stays here'
                  : bags.every(({ now }) => now.state === 'gone')
                    ? `handed out${bags[0]?.now.by?.who ? ` to ${bags[0].now.by.who}` : ''}`
                    : bags.some(({ now }) => now.state === 'not there')
                      ? 'nobody there'
                      : bags.some(({ now }) => now.state === 'came back')
                        ? 'came back'
                        : '',
              }))}
              left={missed.map(({ householdId }) => householdId)}
              save={move.bind(null, sessionId)}
            />
          )}
          {missed.length > 0 && (
            <section className="sheet p-4" aria-labelledby="missed">
              <h2 id="missed" className="text-lg font-bold">
                Not reached
              </h2>
              <ul>
                {missed.map(({ householdId, name, why, help }) => (
                  <li key={householdId} className="py-1">
                    <b>{name}.</b> {why}
                    {help.length > 0 && ` It would be reached ${help.join(', or ')}.`}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <PlanRounds sessionId={sessionId} meeting={meeting} rounds={rounds} crew={found.crew} />
          <DoorList doors={doors} />
          <RoadsForm roads={roads} usualRoads={usualRoads} programmeVersion={found.programmeVersion} />
          <Caution>
            Cold parts leave the fridge last, travel with ice, and are in a fridge again within two hours (one above 32
            °C, 90 °F). What comes back is not restocked. Drivers see the doors of their own round, on its day.
          </Caution>
        </div>
      )}
    </>
  );
}
