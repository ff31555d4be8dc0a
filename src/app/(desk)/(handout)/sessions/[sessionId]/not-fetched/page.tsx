import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { decideKit, viewNotFetched } from '@/services/handout/not-fetched';
import { ActionForm } from '@/ui/form/action-form';
import { Choice } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, Empty } from '@/ui/page';

export const metadata = { title: 'Kits not fetched' };

async function decide(
  sessionId: string,
  id: string,
  kitId: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(decideKit, async () => {
    const { fate = '', toId } = fields(data);
    await call(decideKit, { sessionId, id, kitId, fate, ...(toId ? { toId } : {}) });
    return undefined;
  });
}

export default async function NotFetched({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours, kits } = await orNotFound(call(viewNotFetched, { sessionId }));
  const open = kits.filter(({ fate }) => !fate).length;
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="handout"
      title="kits not fetched"
      actions={
        <Link href={`/room/${sessionId}/attendance`} className="btn">
          Who fetched theirs
        </Link>
      }
    >
      {kits.length === 0 ? (
        <Empty title="No kit was left">
          <p>Kits noted as “not collected” stand here, with what may become of each on the same day.</p>
        </Empty>
      ) : (
        <>
          <p role="status" className="mb-3 text-lg">
            {open === 0
              ? `All ${kits.length} are decided.`
              : `${open} of ${kits.length} still to be decided, on the day itself.`}
          </p>
          <ul className="flex flex-col gap-4">
            {kits.map(({ id, number, name, variant, takers, offers, fate }) => (
              <li key={id} className="sheet p-4">
                <h2 className="text-xl font-bold">
                  Kit {number}, {variant}: {name}
                </h2>
                {fate && (
                  <p className="my-1 font-semibold">
                    Decided: {fate.kind}
                    {fate.to && ` to ${fate.to}`}.
                  </p>
                )}
                <dl className="my-2 grid gap-x-4 gap-y-1 text-sm sm:grid-cols-[7rem_1fr]">
                  {offers.map((offer) => (
                    <div key={offer.fate} className="contents">
                      <dt className="font-bold">{offer.fate}</dt>
                      <dd className={offer.isOpen ? '' : 'text-base-content/70'}>{offer.say}</dd>
                    </div>
                  ))}
                </dl>
                <ActionForm
                  action={decide.bind(null, sessionId, v7(), id)}
                  label={`What becomes of kit ${number}`}
                  className="flex flex-wrap items-end gap-2"
                >
                  <Choice label="What becomes of it" name="fate" defaultValue={fate?.kind ?? 'held'}>
                    {offers
                      .filter(({ isOpen }) => isOpen)
                      .map((offer) => (
                        <option key={offer.fate}>{offer.fate}</option>
                      ))}
                  </Choice>
                  {takers.length > 0 && (
                    <Choice label="Given to" name="toId" defaultValue="">
                      <option value="">nobody</option>
                      {takers.map((taker) => (
                        <option key={taker.id} value={taker.id}>
                          {taker.name}
                        </option>
                      ))}
                    </Choice>
                  )}
                  <button type="submit" className={`btn ${fate ? '' : 'btn-primary'}`}>
                    {fate ? 'Decide anew' : 'Decide'}
                  </button>
                </ActionForm>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-5">
        <Caution>A cold kit that comes back is not restocked. In doubt, throw it away.</Caution>
      </div>
    </SessionFrame>
  );
}
