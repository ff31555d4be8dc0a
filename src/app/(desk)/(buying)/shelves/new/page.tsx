import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt, formOf, texts, ticked } from '@/app/form';
import { addLot, viewStock } from '@/services/buying/stock';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { LotFields } from '../lot-fields';

export const metadata = { title: 'Put something on a shelf' };

async function add(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addLot, async () => {
    const sent = formOf(addLot, data);
    await call(addLot, { ...sent, labelRead: ticked(data, 'labelRead'), allergens: texts(data, 'allergens') });
    return `${sent.name || sent.ingredient} is on the shelf.`;
  });
}

export default async function NewLot() {
  const { foods, places } = await call(viewStock, {});
  return (
    <>
      <PageTitle
        title="Put something on a shelf"
        over="What was bought elsewhere, is left over, or comes from the garden"
      >
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      <ActionForm
        action={add}
        label="Put something on a shelf"
        clear
        className="sheet flex max-w-lg flex-col gap-3 p-5"
      >
        <LotFields id={v7()} foods={foods} places={places} />
        <button type="submit" className="btn btn-primary w-fit">
          Put it there
        </button>
      </ActionForm>
    </>
  );
}
