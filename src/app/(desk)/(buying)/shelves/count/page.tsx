import Link from 'next/link';
import { call } from '@/app/access';
import { viewStock } from '@/services/buying/stock';
import { CountShelf } from '@/ui/buying/count-shelf';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Count a shelf' };

export default async function Count() {
  const { lots } = await call(viewStock, {});
  return (
    <>
      <PageTitle title="Count a shelf" over="As it stands: tap what is there, go on to the next">
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      {lots.length === 0 ? (
        <Empty title="Nothing to count">
          <p>What comes in is put on a shelf first.</p>
        </Empty>
      ) : (
        <CountShelf
          lots={lots.map(({ id, name, ingredient, packGrams, now, place }) => ({
            id,
            name,
            ingredient,
            packGrams,
            packs: now.packs,
            loose: now.loose,
            where: `${{ shelf: 'Shelf', fridge: 'Fridge', freezer: 'Freezer' }[now.storage]}${place ? `, ${place}` : ''}`,
          }))}
        />
      )}
    </>
  );
}
