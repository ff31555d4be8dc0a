import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { listPrintOuts, playInstrument, readInstruments } from '@/services/equipment/equipment';
import { listMessages } from '@/services/messages/messages';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Devices' };

async function play(device: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(playInstrument, async () => {
    await call(playInstrument, { device, reading: fields(data).reading ?? '' });
    return 'Set.';
  });
}

export default async function Devices() {
  const say = await saying();
  const readings = await call(readInstruments, {});
  const printOuts = await call(listPrintOuts, {});
  const messages = await call(listMessages, {});
  return (
    <>
      <PageTitle title="Devices" over="Stand-ins that act like the real ones: play them here" />
      <div className="grid gap-6 lg:grid-cols-2">
        <div className="flex flex-col gap-6">
          <Instrument
            title="Kitchen scale"
            shows={readings.grams === null ? 'off' : `${readings.grams} g`}
            label="Grams on the scale"
            action={play.bind(null, 'scale')}
            value={readings.grams ?? 0}
            button="Put it on"
            note="At the bench, “Weigh” reads it."
          />
          <Instrument
            title="Probe"
            shows={readings.celsius === null ? 'off' : `${readings.celsius} °C`}
            label="Degrees Celsius at the tip"
            action={play.bind(null, 'probe')}
            value={readings.celsius ?? 4}
            button="Hold it in"
          />
          <Instrument
            title="Code scanner"
            shows={readings.code || 'nothing before it'}
            label="Code before the scanner"
            action={play.bind(null, 'scanner')}
            value={readings.code ?? ''}
            button="Hold it before the scanner"
            note="At the bench, “Scan a code” reads this code; a real scanner types it like a keyboard."
          />
        </div>
        <div className="flex flex-col gap-6">
          <section className="sheet p-5" aria-labelledby="tray">
            <h2 id="tray" className="mb-3 text-xl font-bold">
              Label printer: the tray
            </h2>
            {printOuts.length === 0 && <p>The tray is empty. Labels are sent here from a session’s packing page.</p>}
            <ul className="divide-y divide-base-300">
              {printOuts.map(({ id, title, pages, at }) => (
                <li key={id} className="flex items-center justify-between gap-3 py-2">
                  <span>
                    <b>{title}</b>
                    <span className="block text-sm">
                      {pages} {pages === 1 ? 'page' : 'pages'}, {say.moment(at.toISOString())}
                    </span>
                  </span>
                  <a
                    className="btn btn-sm"
                    href={`/devices/prints/${id}`}
                    target="_blank"
                    rel="noreferrer"
                    aria-label={`Look at ${title}`}
                  >
                    Look
                  </a>
                </li>
              ))}
            </ul>
          </section>
          <section className="sheet p-5" aria-labelledby="outbox">
            <h2 id="outbox" className="mb-3 text-xl font-bold">
              Message gateway: the outbox
            </h2>
            {messages.length === 0 && <p>Nothing was sent yet.</p>}
            <ul className="divide-y divide-base-300">
              {messages.map(({ id, sentTo, subject, body, createdAt, sentAt }) => (
                <li key={id} className="py-2">
                  <details>
                    <summary className="cursor-pointer">
                      <b>{subject}</b> to {sentTo || 'erased'}
                      <span className="block text-sm">
                        {say.moment(createdAt.toISOString())},{' '}
                        {sentAt ? 'put here; this stand-in sends nothing on' : 'waiting'}
                      </span>
                    </summary>
                    <p className="mt-2 text-sm break-words whitespace-pre-line">{body}</p>
                  </details>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </>
  );
}

function Instrument({
  title,
  shows,
  label,
  action,
  value,
  button,
  note,
}: {
  title: string;
  shows: string;
  label: string;
  action: (state: FormState | null, data: FormData) => Promise<FormState>;
  value: string | number;
  button: string;
  note?: string;
}) {
  return (
    <section className="sheet p-5" aria-label={title}>
      <h2 className="text-xl font-bold">{title}</h2>
      <p className="my-2 font-display text-4xl font-bold break-all tabular-nums">{shows}</p>
      <ActionForm action={action} label={title} className="flex flex-wrap items-end gap-2">
        <Field label={label} name="reading" defaultValue={value} width="grow" />
        <button type="submit" className="btn">
          {button}
        </button>
      </ActionForm>
      {note && <p className="mt-2 text-sm">{note}</p>}
    </section>
  );
}
