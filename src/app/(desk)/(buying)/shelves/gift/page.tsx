import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt, formOf, texts, ticked } from '@/app/form';
import { GIFT_CHECKS, TIN_CHECKS } from '@/contracts/shops';
import { takeGift, viewStock } from '@/services/buying/stock';
import { ActionForm } from '@/ui/form/action-form';
import { Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, PageTitle } from '@/ui/page';
import { LotFields } from '../lot-fields';

export const metadata = { title: 'Take a gift' };

/** What is looked at, as one says it at the door. */
const ASKED: Readonly<Record<(typeof GIFT_CHECKS)[number] | (typeof TIN_CHECKS)[number], string>> = {
  sealed: 'It is sealed',
  labelled: 'It has its label, with what is in it',
  'in date': 'It is in date',
  undamaged: 'Its pack is whole',
  'not home-made': 'It is not home-made',
  'no dent on a seam': 'No dent on a seam or rim',
  'not bulging': 'Neither end bulges',
  'no rust': 'No rust that does not wipe off',
  'no leak': 'No leak, nothing sticky',
};

async function take(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(takeGift, async () => {
    const sent = formOf(takeGift, data);
    const { isTaken, reasons } = await call(takeGift, {
      ...sent,
      isTin: ticked(data, 'isTin'),
      checks: texts(data, 'checks') as (typeof GIFT_CHECKS)[number][],
      labelRead: ticked(data, 'labelRead'),
      allergens: texts(data, 'allergens'),
    });
    return isTaken
      ? `Thank them: ${sent.name || sent.ingredient} is on the shelf.`
      : `Do not take it: ${reasons.join(', ')}. The reason is kept.`;
  });
}

export default async function Gift() {
  const { foods, places } = await call(viewStock, {});
  return (
    <>
      <PageTitle title="Take a gift" over="Only what is sealed, labelled, in date, whole and not home-made">
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      <ActionForm action={take} label="Take a gift" clear className="grid max-w-4xl gap-6 md:grid-cols-2">
        <fieldset className="sheet flex h-fit flex-col gap-2 p-5">
          <legend className="sr-only">Look at it</legend>
          <h2 className="text-xl font-bold">Look at it</h2>
          {GIFT_CHECKS.map((check) => (
            <Tick key={check} label={ASKED[check]} name="checks" value={check} className="checkbox checkbox-lg" />
          ))}
          <h3 className="mt-3 font-bold">A tin</h3>
          <Tick label="It is a tin" name="isTin" className="checkbox checkbox-lg" />
          {TIN_CHECKS.map((check) => (
            <Tick key={check} label={ASKED[check]} name="checks" value={check} className="checkbox checkbox-lg" />
          ))}
          <p className="text-sm">What is not ticked is the reason why it is not taken, and is kept.</p>
        </fieldset>
        <div className="sheet flex flex-col gap-3 p-5">
          <h2 className="text-xl font-bold">What it is</h2>
          <LotFields id={v7()} foods={foods} places={places} isGift />
          <button type="submit" className="btn btn-primary btn-lg">
            Take it, or refuse it
          </button>
        </div>
      </ActionForm>
      <div className="mt-5">
        <Caution>Boxes that families get from a food bank are theirs: they are never put on this shelf.</Caution>
      </div>
    </>
  );
}
