import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { handedNow, STILL_HERE } from '@/core/handout/handing';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { sayCount } from '@/core/quantity/say';
import { tellFamilies } from '@/services/handout/families';
import { viewTable } from '@/services/handout/table';
import { viewSession } from '@/services/kits/kit-sheet';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Caution, Empty } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Hand out' };

async function tell(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(tellFamilies, async () => {
    const { told, unreached } = await call(tellFamilies, { sessionId });
    return `${sayCount(told, 'family was', 'families were')} written to.${
      unreached.length > 0 ? ` Nobody wrote how these are reached: ${unreached.join(', ')}.` : ''
    }`;
  });
}

/** How a session's kits get into the right hands, and how far that is. */
export default async function HandOut({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours } = await orNotFound(call(viewSession, { sessionId }));
  const isLocked = Boolean(sheet.locked);
  const table = isLocked ? await call(viewTable, { sessionId }) : undefined;
  const now = handedNow(table?.events ?? []);
  const kits = table?.kits ?? [];
  const stateOf = (id: string) => now.get(id) ?? STILL_HERE;
  const count = (state: string) => kits.filter(({ id }) => stateOf(id).state === state).length;
  const later = kits.filter(({ said }) => said?.word === 'later');
  const confirmed = kits.filter(({ said }) => said?.word === 'confirmed').length;
  const modes = new Set([bundle.session.mode, ...bundle.enrolments.map(({ mode }) => mode ?? bundle.session.mode)]);
  const toDoors = modes.has('live online') || modes.has('follow-later');
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="handout"
      title="hand-out"
      actions={isLocked ? <PrintButton /> : undefined}
    >
      {!table ? (
        <Empty
          title={isHomeKit(bundle.session.mode as Mode) ? 'Lock the kit sheet first' : 'Nothing is handed out here'}
        >
          <p>Kits have numbers and letters as soon as their sheet is locked: then they are handed out by them.</p>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-labelledby="standing">
            <h2 id="standing" className="mb-2 text-xl font-bold">
              {count('gone')} of {kits.length} kits are handed out
            </h2>
            <progress
              className="progress progress-primary mb-3 w-full"
              value={count('gone')}
              max={kits.length}
              aria-label="Kits handed out"
            />
            <p className="mb-3">
              {count('not there') > 0 && <b>{sayCount(count('not there'), 'kit was', 'kits were')} not fetched. </b>}
              {count('came back') > 0 && <b>{sayCount(count('came back'), 'kit', 'kits')} came back. </b>}
              {confirmed > 0 && `${sayCount(confirmed, 'family says', 'families say')} that somebody will be there. `}
            </p>
            {later.map(({ id, number, name, said }) => (
              <p key={id} className="mb-2 rounded-box border-l-4 border-warning bg-warning/10 p-2">
                Kit {number}, {name}: needs it later. “{said?.note}”
              </p>
            ))}
            <div className="no-print flex flex-wrap gap-2">
              <Link href={`/table/${sessionId}`} className="btn btn-primary">
                Hand out at a table
              </Link>
              <Link href={`/sessions/${sessionId}/doors`} className={`btn ${toDoors ? 'btn-primary' : ''}`}>
                Doors and rounds
              </Link>
              <Link href={`/sessions/${sessionId}/not-fetched`} className="btn">
                Kits not fetched
              </Link>
              <Link href={`/room/${sessionId}/attendance`} className="btn">
                Who came, who cooked
              </Link>
            </div>
          </section>
          <section className="no-print sheet p-5" aria-labelledby="families">
            <h2 id="families" className="text-xl font-bold">
              Families
            </h2>
            <p className="my-2 max-w-2xl">
              Each gets one message with the day, the hour and the place, and a page of its own: to say that somebody
              will be there, to ask for the kit later, or for the recipe.
            </p>
            <ActionForm action={tell.bind(null, sessionId)} label="Write to the families">
              <button type="submit" className="btn">
                Write to the families
              </button>
            </ActionForm>
          </section>
          <section className="sheet p-5" aria-labelledby="list">
            <h2 id="list" className="mb-2 text-xl font-bold">
              The list
            </h2>
            <table className="table table-sm">
              <thead>
                <tr>
                  <th>Kit</th>
                  <th>For</th>
                  <th>Others who may fetch it</th>
                  <th>Cold part</th>
                  <th>Taken by</th>
                </tr>
              </thead>
              <tbody>
                {kits.map(({ id, number, variant, name, household, group, collectors, cold, isCalledBack }) => {
                  const { state, by } = stateOf(id);
                  return (
                    <tr key={id}>
                      <td className="font-bold tabular-nums">
                        {number} {variant}
                      </td>
                      <td>{[name, household, group].filter(Boolean).join(', ')}</td>
                      <td>{collectors.join(', ')}</td>
                      <td>{cold.length > 0 ? 'yes, fetched last' : ''}</td>
                      <td>
                        {isCalledBack
                          ? 'CALLED BACK: does not go'
                          : state === 'gone'
                            ? by?.who || 'themselves'
                            : state === 'here'
                              ? ''
                              : state}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
          <Caution>
            Names and letters only: what somebody must avoid is never said at the table. The cold part leaves the fridge
            last, and is in a fridge again within two hours (one above 32 °C, 90 °F). A cold kit that comes back is not
            restocked.
          </Caution>
        </div>
      )}
    </SessionFrame>
  );
}
