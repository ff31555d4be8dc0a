import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { writeMoney } from '@/core/quantity/money';
import { payTrip, viewTrip } from '@/services/buying/trips';
import { ReceiptPhoto } from '@/ui/buying/receipt-photo';
import { TripList } from '@/ui/buying/trip-list';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { MoneyField } from '@/ui/form/money-field';
import { PageTitle } from '@/ui/page';
import { UsualCautions } from '@/ui/recipes/usual-cautions';

export const metadata = { title: 'Trip' };

async function pay(tripId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(payTrip, async () => {
    await call(payTrip, { ...formOf(payTrip, data), tripId });
    return 'The total is kept, and prices that differed are in the price book.';
  });
}

export default async function Trip({ params }: { params: Promise<{ tripId: string }> }) {
  const say = await saying();
  const { tripId } = await params;
  const { shop, day, state, lines, events, paid, payer, hasReceipt } = await orNotFound(call(viewTrip, { tripId }));
  return (
    <>
      <PageTitle title={shop} over={say.longDate(day)}>
        <Link href="/trips" className="btn">
          Trips
        </Link>
        {state !== 'received' && (
          <Link href={`/trips/${tripId}/receive`} className={`btn ${state === 'paid' ? 'btn-primary' : ''}`}>
            Check in what it brought
          </Link>
        )}
      </PageTitle>
      <TripList tripId={tripId} lines={lines} said={events} isOver={state === 'received'} />
      <section className="sheet mt-5 max-w-xl p-5" aria-labelledby="till">
        <h2 id="till" className="mb-2 text-xl font-bold">
          At the till
        </h2>
        {paid !== null && (
          <p className="mb-2">
            {say.money(paid)} paid by {payer}.
          </p>
        )}
        {state !== 'received' && (
          <ActionForm action={pay.bind(null, tripId)} label="At the till" className="flex flex-wrap items-end gap-2">
            <MoneyField
              label="Total of the receipt"
              name="paid"
              required
              width="w-40"
              defaultValue={paid === null ? '' : writeMoney(paid)}
            />
            <Field label="Who paid" name="payer" required maxLength={120} width="w-48" defaultValue={payer} />
            <button type="submit" className="btn btn-primary">
              Paid
            </button>
          </ActionForm>
        )}
        <ReceiptPhoto tripId={tripId} isKept={hasReceipt} />
      </section>
      <UsualCautions at="shopping" />
    </>
  );
}
