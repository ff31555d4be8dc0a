import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { timeOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { writeTime } from '@/core/plan/manner';
import { sayCount } from '@/core/quantity/say';
import { importDoors, setDoor, setRoads, viewDoors } from '@/services/handout/doors';
import { dropRound, moveDoors, planDoorRounds } from '@/services/handout/rounds';
import { sayLongDate } from '@/ui/dates';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field, FileField, TextArea, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { RoundsBoard } from '@/ui/handout/rounds-board';
import { RoundsMap } from '@/ui/handout/rounds-map';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { Planning } from '@/ui/planning';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Doors and rounds' };

/** Rows for drivers in the form. */
const DRIVERS = [0, 1, 2, 3] as const;

async function plan(sessionId: string, group: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(planDoorRounds, async () => {
    const { drivers: rows = [], ...sent } = formOf(planDoorRounds, data);
    const drivers = [...rows].filter(({ crewId, name }) => crewId || name);
    const answer = await call(planDoorRounds, { ...sent, sessionId, group, drivers });
    const served = answer.routes.reduce((sum, { stops }) => sum + stops.length, 0);
    const sure = answer.proven.driving
      ? 'No rounds are shorter.'
      : `There may be shorter ones${answer.bound?.driving === undefined ? '' : `: not below ${answer.bound.driving} minutes`}.`;
    return `${sayCount(served, 'door', 'doors')} in ${sayCount(answer.routes.length, 'round', 'rounds')}, ${answer.driving} minutes on the road. ${sure}${
      answer.missed > 0 ? ` ${sayCount(answer.missed, 'door is', 'doors are')} not reached: see below why.` : ''
    }`;
  });
}

async function move(sessionId: string, rounds: readonly { id: string; version: number; stops: readonly string[] }[]) {
  'use server';
  const { ok, message } = await attempt(moveDoors, async () => {
    await call(moveDoors, { sessionId, rounds });
    return 'Saved.';
  });
  return { ok, ...(message ? { message } : {}) };
}

async function drop(sessionId: string, roundId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(dropRound, async () => {
    await call(dropRound, { sessionId, roundId });
    return undefined;
  });
}

async function keepDoor(
  householdId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(setDoor, async () => {
    const { point = '', from = '', to = '', note = '' } = fields(data);
    await call(setDoor, { householdId, version, point, from, to, note });
    return 'Kept.';
  });
}

async function bringIn(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(importDoors, async () => {
    const file = data.get('file');
    const bytes = file instanceof File ? new Uint8Array(await file.arrayBuffer()) : new Uint8Array();
    return `${sayCount(await call(importDoors, { bytes }), 'door was', 'doors were')} brought in.`;
  });
}

async function keepRoads(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setRoads, async () => {
    const { kitchen = '', known = '', speed = '', factor = '', handing = '', kitLitres = '' } = fields(data);
    await call(setRoads, { version, kitchen, known, speed, factor, handing, kitLitres });
    return 'Kept.';
  });
}

interface Params {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

/** The doors that kits go to, and the rounds of those who bring them. */
export default async function Doors({ params, searchParams }: Params) {
  const { sessionId } = await params;
  const { group: wanted } = await searchParams;
  const found = await orNotFound(call(viewDoors, { sessionId }));
  const { session, manner, meetings, roads, timeZone, usualRoads } = found;
  const meeting = meetings.find(({ group }) => group === wanted) ?? meetings[0];
  const doors = found.doors.filter(({ group }) => group === (meeting?.group ?? ''));
  const ids = new Set(doors.map(({ householdId }) => householdId));
  const rounds = found.rounds.filter(({ stops }) => stops.some(({ householdId }) => ids.has(householdId)));
  const missed = found.missed.filter(({ householdId }) => ids.has(householdId));
  const say = (minutes: number) => writeTime(timeOf(minutes % 1440), manner);
  const withoutPoint = doors.filter(({ door }) => !door.at).length;
  return (
    <>
      <PageTitle
        title="Doors and rounds"
        over={`${session.courseTitle} · ${session.title} · ${sayLongDate(meeting?.date ?? session.date)}`}
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
              {group}, {sayLongDate(date)}
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
              manner={manner}
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
                    ? `Left at ${writeTime(civilIn(leftAt, timeZone).time, manner)}: ${standing.done} of ${stops.length} doors done${
                        standing.ahead[0] ? `, next at about ${say(standing.ahead[0].begins)}` : ''
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
          <section className="no-print sheet p-5" aria-labelledby="plan">
            <h2 id="plan" className="mb-2 text-xl font-bold">
              Plan the rounds
            </h2>
            <ActionForm
              action={plan.bind(null, sessionId, meeting?.group ?? '')}
              label="Plan the rounds"
              className="flex flex-col gap-3"
            >
              <div className="flex flex-wrap gap-3">
                <DateField label="Day" name="date" defaultValue={rounds[0]?.date ?? meeting?.date ?? ''} required />
                <TimeField label="From" name="from" defaultValue={timeOf(meeting?.span.from ?? 900)} required />
                <TimeField label="To" name="to" defaultValue={timeOf(meeting?.span.to ?? 1080)} required />
              </div>
              <p className="text-sm">
                Whoever has hours of their own is reached in those. Cold parts are at most two hours on the way.
              </p>
              {DRIVERS.map((at) => {
                const round = rounds.filter(({ leftAt }) => leftAt === null)[at];
                const planned = meeting?.drivers[at];
                const crewId = round?.crewId ?? planned?.crewId ?? '';
                const from = round?.driver.from ?? planned?.from ?? meeting?.span.from ?? 900;
                const to = round?.driver.to ?? planned?.to ?? meeting?.span.to ?? 1080;
                return (
                  <fieldset key={at} className="flex flex-wrap items-end gap-3">
                    <legend className="text-sm font-semibold">{at === 0 ? 'Drivers' : `Driver ${at + 1}`}</legend>
                    <Choice label="Of the crew" name={`drivers[${at}].crewId`} defaultValue={crewId}>
                      <option value="">nobody</option>
                      {found.crew.map(({ id, name }) => (
                        <option key={id} value={id}>
                          {name}
                        </option>
                      ))}
                    </Choice>
                    <Field
                      label="Or by name"
                      name={`drivers[${at}].name`}
                      width="w-36"
                      defaultValue={round && !round.crewId ? round.driver.name : ''}
                    />
                    <TimeField label="Drives from" name={`drivers[${at}].from`} defaultValue={timeOf(from)} />
                    <TimeField label="Until" name={`drivers[${at}].to`} defaultValue={timeOf(to)} />
                    <Field
                      label="Litres"
                      name={`drivers[${at}].litres`}
                      inputMode="numeric"
                      width="w-20"
                      defaultValue={round?.driver.litres ?? ''}
                    />
                    <Tick
                      label="Comes back here"
                      name={`drivers[${at}].home`}
                      defaultChecked={round?.driver.home ?? true}
                    />
                  </fieldset>
                );
              })}
              <div className="flex items-center gap-3">
                <button type="submit" className="btn btn-primary">
                  Plan the rounds
                </button>
                <Planning seconds={8} />
              </div>
            </ActionForm>
            {rounds
              .filter(({ leftAt }) => leftAt === null)
              .map(({ id, driver }) => (
                <ActionForm key={id} action={drop.bind(null, sessionId, id)} label={`Take away: ${driver.name}`}>
                  <button type="submit" className="btn btn-sm mt-2">
                    Take away the round of {driver.name}
                  </button>
                </ActionForm>
              ))}
          </section>
          <section className="no-print sheet p-5" aria-labelledby="doors">
            <h2 id="doors" className="mb-2 text-xl font-bold">
              Doors
            </h2>
            <ul className="divide-y divide-base-300">
              {doors.map(({ householdId, version, name, address, door }) => (
                <li key={householdId} className="py-2">
                  <ActionForm
                    action={keepDoor.bind(null, householdId, version)}
                    label={`Door of ${name}`}
                    className="flex flex-wrap items-end gap-3"
                  >
                    <span className="w-52">
                      <b>{name}</b>
                      <span className="block text-sm">{address || 'no address written'}</span>
                    </span>
                    <Field label="Point" name="point" width="w-48" defaultValue={door.at?.join(', ') ?? ''} />
                    <TimeField
                      label="There from"
                      name="from"
                      defaultValue={door.from === undefined ? '' : timeOf(door.from)}
                    />
                    <TimeField label="Until" name="to" defaultValue={door.to === undefined ? '' : timeOf(door.to)} />
                    <Field label="For the driver" name="note" width="w-48" defaultValue={door.note ?? ''} />
                    <button type="submit" className="btn" aria-label={`Keep: door of ${name}`}>
                      Keep
                    </button>
                  </ActionForm>
                </li>
              ))}
            </ul>
            <ActionForm action={bringIn} label="Bring in doors" className="mt-3 flex flex-wrap items-end gap-3">
              <FileField label="Doors as CSV" name="file" accept=".csv,text/csv" required />
              <button type="submit" className="btn">
                Bring in
              </button>
              <span className="text-sm">
                Columns: name, address, point (or latitude and longitude), from, to, note. What is empty changes
                nothing.
              </span>
            </ActionForm>
          </section>
          <details className="no-print sheet p-5" open={!roads}>
            <summary className="cursor-pointer text-xl font-bold">How one drives here</summary>
            <ActionForm
              action={keepRoads.bind(null, found.programmeVersion)}
              label="How one drives here"
              className="mt-3 flex max-w-2xl flex-col gap-3"
            >
              <Field
                label="Where the kitchen is"
                name="kitchen"
                defaultValue={roads?.kitchen.join(', ') ?? ''}
                hint="As 44.1032, -68.3341: the latitude first. A phone’s map shows it when one holds a finger on a place."
                required
              />
              <div className="flex flex-wrap gap-3">
                <Field
                  label="Kilometres an hour"
                  name="speed"
                  width="w-32"
                  defaultValue={roads?.speed ?? usualRoads.speed}
                />
                <Field
                  label="Roads longer than straight, times"
                  name="factor"
                  width="w-40"
                  defaultValue={roads?.factor ?? usualRoads.factor}
                />
                <Field
                  label="Minutes at a door"
                  name="handing"
                  width="w-32"
                  defaultValue={roads?.handing ?? usualRoads.handing}
                />
                <Field
                  label="Litres of a kit"
                  name="kitLitres"
                  width="w-32"
                  defaultValue={roads?.kitLitres ?? usualRoads.kitLitres}
                />
              </div>
              <TextArea
                label="Ways that you know better, one a line"
                name="known"
                rows={3}
                defaultValue={
                  roads?.known.map(({ from, to, minutes }) => `${from}; ${to}; ${minutes}`).join('\n') ?? ''
                }
                hint="Two families, or “kitchen”, and the minutes between: kitchen; Household Bracken; 12"
              />
              <button type="submit" className="btn w-fit">
                Keep
              </button>
            </ActionForm>
          </details>
          <Caution>
            Cold parts leave the fridge last, travel with ice, and are in a fridge again within two hours (one above 32
            °C, 90 °F). What comes back is not restocked. Drivers see the doors of their own round, on its day.
          </Caution>
        </div>
      )}
    </>
  );
}
