import { Temporal } from 'temporal-polyfill';
import { call } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { SessionFrame } from '@/app/session-frame';
import { sayMinutes } from '@/core/countdown/network';
import { type JobView, sayLeft } from '@/core/countdown/thread';
import { JOBS, STAGES } from '@/core/stages/stages';
import { addOneOffJob, changeJob, markJob, removeOneOffJob, viewJobs } from '@/services/countdown/countdown';
import { KnotShape } from '@/ui/countdown/knot';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { AS } from '@/ui/table/stacked';
import { putBack } from '../../../../put-back';

export const metadata = { title: 'Jobs' };

async function mark(sessionId: string, job: string, done: boolean): Promise<void> {
  'use server';
  await attempt(markJob, async () => {
    await call(markJob, { sessionId, job, done });
    return undefined;
  });
}

async function show(sessionId: string, job: string, on: boolean): Promise<void> {
  'use server';
  await attempt(changeJob, async () => {
    await call(changeJob, { sessionId, job, for: 'session', on });
    return undefined;
  });
}

async function takeAway(sessionId: string, job: string): Promise<FormState> {
  'use server';
  return attempt(removeOneOffJob, async () => {
    const id = await call(removeOneOffJob, { sessionId, job });
    return { message: 'The job is taken away.', undo: putBack.bind(null, id) };
  });
}

async function retime(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changeJob, async () => {
    const { job = '', fixed, perKit, whose = 'session' } = fields(data);
    const minutes = { ...(fixed ? { fixed } : {}), ...(perKit ? { perKit } : {}) };
    await call(changeJob, { sessionId, job, for: whose, ...minutes });
    return 'Saved. The thread is counted back anew.';
  });
}

async function add(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addOneOffJob, async () => {
    await call(addOneOffJob, { ...formOf(addOneOffJob, data), sessionId });
    return 'Added.';
  });
}

/** Jobs that nobody marks: they are done when what they are about is. */
const BY_THEMSELVES = new Set(['recipes', 'roll', 'kits']);

export default async function Jobs({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { bundle, sheet, hours, thread, savers, choices, who, now } = await orNotFound(call(viewJobs, { sessionId }));
  const instant = Temporal.Instant.from(now);
  const hidden = choices.filter(({ on }) => !on);
  return (
    <SessionFrame bundle={bundle} sheet={sheet} hours={hours} title="jobs">
      {thread.tooLate && (
        <div role="alert" className="sheet mb-5 border-l-4 border-l-error p-4">
          <p className="font-bold">This can no longer be ready in time.</p>
          <p className="text-sm">{say.text(thread.tooLate)}</p>
          {savers.length > 0 && (
            <>
              <p className="mt-2 text-sm font-semibold">This would save it; each was calculated:</p>
              <ul className="list-disc pl-5 text-sm">
                {savers.map((saver) => (
                  <li key={saver}>{say.text(saver)}</li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <section className="sheet h-fit overflow-x-auto" aria-labelledby="jobs">
          <h2 id="jobs" className="px-5 pt-4 text-xl font-bold">
            What has to be done, and by when
          </h2>
          <table {...AS.table} className="table stacked">
            <thead {...AS.rowgroup}>
              <tr {...AS.row}>
                <th scope="col">Job</th>
                <th scope="col">Earliest start</th>
                <th scope="col">Start by</th>
                <th scope="col" className="text-right">
                  To spare
                </th>
                <th scope="col">
                  <span className="sr-only">Mark</span>
                </th>
              </tr>
            </thead>
            <tbody {...AS.rowgroup}>
              {STAGES.flatMap(({ key }) => thread.jobs.filter((job) => job.stage === key)).map((job, index, all) => (
                <tr {...AS.row} key={job.key} id={all[index - 1]?.stage === job.stage ? undefined : job.stage}>
                  <th {...AS.rowheader} scope="row" className="font-normal">
                    <span className="flex items-center gap-2 font-bold">
                      <KnotShape state={job.state} /> {job.title}
                      {job.decides && job.state !== 'done' && (
                        <span className="badge badge-sm badge-outline whitespace-nowrap">decides</span>
                      )}
                    </span>
                    <span className="block text-sm">
                      {job.state}, takes {sayMinutes(job.minutes)}. {say.text(job.why)}
                      {who[job.key] &&
                        ` By ${who[job.key]?.join(', ')}${job.planned ? `, ${say.moment(job.planned)}` : ''}.`}
                    </span>
                  </th>
                  <td {...AS.cell} data-label="Earliest start" className="whitespace-nowrap">
                    {job.state === 'done' ? '' : say.moment(job.earliest)}
                  </td>
                  <td {...AS.cell} data-label="Start by" className="whitespace-nowrap">
                    {job.planned && <span className="block font-semibold">planned {say.moment(job.planned)}</span>}
                    {say.moment(job.startBy)}
                  </td>
                  <td {...AS.cell} data-label="To spare" className="whitespace-nowrap text-right">
                    {job.state === 'done' ? '' : spare(job)}
                  </td>
                  <td {...AS.cell}>
                    <Buttons sessionId={sessionId} job={job} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="px-5 py-3 text-sm">
            The session starts {sayLeft(thread.start, instant)}. Times follow the shop’s and the crew’s working hours.
          </p>
        </section>
        <div className="no-print flex flex-col gap-5">
          {hidden.length > 0 && (
            <section className="sheet p-4" aria-labelledby="hidden">
              <h2 id="hidden" className="mb-2 text-lg font-bold">
                Jobs left out
              </h2>
              <ul className="flex flex-col gap-1">
                {hidden.map(({ key, title, minutes }) => (
                  <li key={key} className="flex items-center justify-between gap-2 text-sm">
                    <span>
                      {title}
                      {minutes > 0 && `, ${sayMinutes(minutes)}`}
                    </span>
                    <form action={show.bind(null, sessionId, key, true)}>
                      <button type="submit" className="btn btn-sm whitespace-nowrap" aria-label={`Add ${title}`}>
                        Add
                      </button>
                    </form>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section className="sheet p-4" aria-labelledby="own">
            <h2 id="own" className="mb-2 text-lg font-bold">
              A job of this session’s own
            </h2>
            <ActionForm action={add.bind(null, sessionId)} label="Add a job" clear className="flex flex-col gap-2">
              <Field label="What is to be done" name="title" required maxLength={120} />
              <div className="grid grid-cols-2 gap-2">
                <Field label="Minutes" name="minutes" type="number" min={0} max={10080} required defaultValue={30} />
                <Choice label="In the hours of" name="hours" defaultValue="crew">
                  <option value="crew">the crew</option>
                  <option value="shop">the shop</option>
                  <option value="any">nobody, any hour</option>
                </Choice>
              </div>
              <Choice label="Stage" name="stage" defaultValue="packing">
                {STAGES.filter(({ jobs }) => jobs.length > 0).map(({ key, title }) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
              </Choice>
              <Choice label="Must be done before" name="before" defaultValue="packing">
                {JOBS.map(({ key, title }) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
              </Choice>
              <button type="submit" className="btn btn-primary w-fit">
                Add job
              </button>
            </ActionForm>
          </section>
          <section className="sheet p-4" aria-labelledby="longer">
            <h2 id="longer" className="mb-2 text-lg font-bold">
              It takes longer, or less
            </h2>
            <ActionForm action={retime.bind(null, sessionId)} label="Minutes of a job" className="flex flex-col gap-2">
              <Choice label="Job" name="job" defaultValue="packing">
                {choices.map(({ key, title }) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
              </Choice>
              <div className="grid grid-cols-2 gap-2">
                <Field label="Minutes in any case" name="fixed" type="number" min={0} max={10080} />
                <Field label="More with each kit" name="perKit" type="number" min={0} max={600} />
              </div>
              <Choice label="For" name="whose" defaultValue="session">
                <option value="session">this session</option>
                <option value="course">every session of the course</option>
              </Choice>
              <button type="submit" className="btn w-fit">
                Save minutes
              </button>
            </ActionForm>
          </section>
        </div>
      </div>
    </SessionFrame>
  );
}

function spare({ slack, state }: JobView): string {
  if (state === 'cannot be met') return `short by ${sayMinutes(-slack)}`;
  if (state === 'late') return slack < 0 ? `${sayMinutes(slack)} too late` : 'late';
  return Math.abs(slack) > 1e6 ? '' : sayMinutes(slack);
}

function Buttons({ sessionId, job }: { sessionId: string; job: JobView }) {
  if (BY_THEMSELVES.has(job.key)) return null;
  const isDone = job.state === 'done';
  return (
    <span className="no-print flex flex-wrap justify-end gap-1">
      <form action={mark.bind(null, sessionId, job.key, !isDone)}>
        <button
          type="submit"
          className="btn btn-sm whitespace-nowrap"
          aria-label={isDone ? `Not done: ${job.title}` : `Mark done: ${job.title}`}
        >
          {isDone ? 'Not done' : 'Mark done'}
        </button>
      </form>
      {job.oneOff && (
        <ActionForm action={takeAway.bind(null, sessionId, job.key)}>
          <button type="submit" className="btn btn-sm" aria-label={`Take away ${job.title}`}>
            Take away
          </button>
        </ActionForm>
      )}
      {job.optional && !job.oneOff && !isDone && (
        <form action={show.bind(null, sessionId, job.key, false)}>
          <button type="submit" className="btn btn-sm whitespace-nowrap" aria-label={`Leave out ${job.title}`}>
            Leave out
          </button>
        </form>
      )}
    </span>
  );
}
