import { parse } from '@conform-to/dom';
import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { DATE_KINDS, STORAGES } from '@/core/buying/stock';
import { lineNow } from '@/core/buying/trip';
import { addDays } from '@/core/plan/civil';
import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { receiveTrip } from '@/services/buying/receipt';
import { viewStock } from '@/services/buying/stock';
import { viewTrip } from '@/services/buying/trips';

import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Check in' };

const REASONS = [
  'past its day',
  'opened or damaged',
  'dented on a seam',
  'warm',
  'thawed',
  'not what was ordered',
] as const;

interface SentLine {
  readonly id: string;
  readonly lineId: string;
  readonly packs: string;
  readonly refused: string;
  readonly lastDay?: string;
  readonly lastKind: (typeof DATE_KINDS)[number];
  readonly storage: (typeof STORAGES)[number];
  readonly degrees?: string;
  readonly reasons?: string;
}

async function receive(tripId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(receiveTrip, async () => {
    const { lines = [], placeId } = parse(data, { resolve: () => ({ value: null }) }).payload as {
      lines?: readonly SentLine[];
      placeId?: string;
    };
    const { short } = await call(receiveTrip, {
      tripId,
      placeId: placeId || null,
      lines: lines.map(({ reasons, degrees = '', lastDay = '', ...line }) => ({
        ...line,
        lastDay,
        degrees,
        reasons: reasons ? [reasons] : [],
      })),
    });
    return short.length === 0
      ? 'All of it is on the shelf.'
      : `On the shelf. Short: ${short.map(({ ingredient, grams }) => `${ingredient}, ${grams} g`).join('; ')}. The coordinator sees it on the buying page, with what would mend it.`;
  });
}

export default async function Receive({ params }: { params: Promise<{ tripId: string }> }) {
  const say = await saying();
  const { tripId } = await params;
  const { shop, day, state, lines, events, coldLimit, scale, today, keeping } = await orNotFound(
    call(viewTrip, { tripId }),
  );
  const { places } = await call(viewStock, {});
  const bought = lines.flatMap(({ id, body }) => {
    const now = lineNow(
      body,
      events.flatMap(({ lineId, answer }) => (lineId === id ? [answer] : [])),
    );
    return now.packs > 0 ? [{ id, body, now }] : [];
  });
  return (
    <>
      <PageTitle title={`Check in: ${shop}`} over={say.longDate(day)}>
        <Link href={`/trips/${tripId}`} className="btn">
          The list
        </Link>
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      <Caution>
        Look at each: amount, day, seal, a tin’s seams, frozen still hard. Cold food at most {coldLimit}; what is warmer
        is refused.
      </Caution>
      {bought.length === 0 || state === 'received' ? (
        <div className="mt-4">
          <Empty title={state === 'received' ? 'It is all checked in' : 'Nothing is in the basket yet'}>
            <p>
              {state === 'received' ? 'What was accepted is on the shelves.' : 'Tick what was taken on the list first.'}
            </p>
          </Empty>
        </div>
      ) : (
        <ActionForm action={receive.bind(null, tripId)} label="Check in" className="mt-4 flex flex-col gap-3">
          <Choice label="It goes to" name="placeId" width="w-72">
            <option value="">no place</option>
            {places.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
          {bought.map(({ id, body, now }, at) => {
            const { storage, days } = keeping[id] ?? { storage: 'shelf', days: 7 };
            const isCold = storage !== 'shelf';
            const isLoose = body.soldBy === 'weight' && !now.hand;
            const name = (field: string) => `lines[${at}].${field}`;
            return (
              <fieldset key={id} className="sheet p-4">
                <legend className="sr-only">{now.name}</legend>
                <p className="mb-2 font-bold">
                  {isLoose ? `${sayGrams(rational(now.packs * now.packGrams))} of` : `${now.packs} ×`} {now.name}{' '}
                  <span className="font-normal">({body.ingredient})</span>
                </p>
                <input type="hidden" name={name('id')} value={v7()} />
                <input type="hidden" name={name('lineId')} value={id} />
                <div className="flex flex-wrap items-end gap-2">
                  <Field
                    label={isLoose ? 'Accepted, × 100 g' : 'Accepted'}
                    name={name('packs')}
                    type="number"
                    min={0}
                    max={now.packs}
                    defaultValue={now.packs}
                    width="w-32"
                  />
                  <Field
                    label={isLoose ? 'Refused, × 100 g' : 'Refused'}
                    name={name('refused')}
                    type="number"
                    min={0}
                    max={now.packs}
                    defaultValue={0}
                    width="w-32"
                  />
                  <DateField
                    label="Last day on it"
                    name={name('lastDay')}
                    width="w-44"
                    defaultValue={isCold && body.aisle !== 'produce' ? '' : addDays(today, days)}
                  />
                  <Choice
                    label="It is"
                    name={name('lastKind')}
                    defaultValue={isCold && body.aisle !== 'produce' ? 'use by' : 'best before'}
                    width="w-36"
                  >
                    {DATE_KINDS.map((kind) => (
                      <option key={kind}>{kind}</option>
                    ))}
                  </Choice>
                  <Choice label="Into the" name={name('storage')} defaultValue={storage} width="w-32">
                    {STORAGES.map((storage) => (
                      <option key={storage}>{storage}</option>
                    ))}
                  </Choice>
                  {isCold && <Field label={`Probe, ${scale}`} name={name('degrees')} width="w-32" />}
                  <Choice label="Why refused" name={name('reasons')} defaultValue="" width="w-48">
                    <option value="">nothing is</option>
                    {REASONS.map((reason) => (
                      <option key={reason}>{reason}</option>
                    ))}
                  </Choice>
                </div>
              </fieldset>
            );
          })}
          <button type="submit" className="btn btn-primary btn-lg w-fit">
            Put it on the shelves
          </button>
        </ActionForm>
      )}
    </>
  );
}
