import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewPrepList } from '@/services/kits/planning';

import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Prep list' };

export default async function PrepPage({ params }: { params: Promise<{ date: string }> }) {
  const say = await saying();
  const { date } = await params;
  const { sessions, parts } = await orNotFound(call(viewPrepList, { date }));
  const drafts = sessions.filter(({ isLocked }) => !isLocked);
  return (
    <>
      <PageTitle title={`Prep list, ${say.longDate(date)}`} over="By food and cut, for all kits and dishes of the day">
        {sessions.map(({ id, title }) => (
          <Link key={id} href={`/sessions/${id}/kits`} className="btn">
            {say.text(title)}
          </Link>
        ))}
        <Link href={`/prep/${date}/plan`} className="btn btn-primary">
          Plan for the hands there are
        </Link>
        <PrintButton />
      </PageTitle>
      {drafts.length > 0 && (
        <p className="mb-4">
          <b>Draft:</b> {drafts.map(({ title }) => say.text(title)).join(', ')} {drafts.length === 1 ? 'is' : 'are'} not
          locked, so amounts may still move.
        </p>
      )}
      {parts.length === 0 ? (
        <Empty title="Nothing is prepared on this day">
          <p>The list is made from the kit sheets of the day’s sessions.</p>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          {parts.map(({ title, because, foods }) => (
            <section key={title} className="sheet p-4 print:p-0" aria-label={title}>
              <h2 className="text-xl font-bold">{title}</h2>
              <p className="mb-2 text-sm">{because}</p>
              <table className="table table-fixed table-sm">
                <thead>
                  <tr className="text-base-content">
                    <th scope="col" className="w-9">
                      <span className="sr-only">Done</span>
                    </th>
                    <th scope="col" className="w-[30%] md:w-56">
                      Food and cut
                    </th>
                    <th scope="col" className="w-[22%] text-right whitespace-normal md:w-32">
                      All together
                    </th>
                    <th scope="col">Into</th>
                  </tr>
                </thead>
                <tbody>
                  {foods.flatMap(({ ingredient, cuts }) =>
                    cuts.map(({ cut, product, sayTotal, goesTo }, at) => (
                      <tr key={`${ingredient} ${cut} ${product} ${sayTotal}`} className="align-top">
                        <td>
                          <span
                            aria-hidden="true"
                            className="inline-block size-4 rounded-xs border-2 border-base-content"
                          />
                        </td>
                        <th scope="row" className="whitespace-normal">
                          <span className={at === 0 ? '' : 'text-base-content/75'}>{ingredient}</span>
                          <span className="block font-normal">{cut || 'measure out'}</span>
                          {product && <span className="block text-sm">only “{product}”</span>}
                        </th>
                        <td className="text-right">{sayTotal}</td>
                        <td className="text-sm">
                          {goesTo.map(({ session, dish, kits, first }) => (
                            <span key={session + dish} className="block">
                              {sessions.length > 1 && `${say.text(session)}, `}
                              {dish}:{' '}
                              {kits
                                .map(({ say, count, letters }) => `${count} × ${say} (${letters.join(' ')})`)
                                .join(', ')}
                              {first.length > 0 && <b className="block">first for {first.join(' ')}</b>}
                            </span>
                          ))}
                        </td>
                      </tr>
                    )),
                  )}
                </tbody>
              </table>
            </section>
          ))}
        </div>
      )}
      <div className="mt-5">
        <Caution>Wash hands first, after raw meat, eggs and gloves. What is cut is kept cold, and dated.</Caution>
      </div>
    </>
  );
}
