import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { addDish } from '@/services/plan/sessions';
import { proposeDishes } from '@/services/recipes/suits';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { CoverageChart } from '@/ui/recipes/coverage-chart';
import { Verdict } from '@/ui/recipes/fit-findings';

export const metadata = { title: 'Choose dishes' };

async function take(sessionId: string, recipeId: string): Promise<FormState> {
  'use server';
  return attempt(addDish, async () => {
    await call(addDish, { sessionId, recipeId });
    return 'Chosen.';
  });
}

type Query = Promise<Record<string, string | string[] | undefined>>;

export default async function Dishes({
  params,
  searchParams,
}: {
  params: Promise<{ courseId: string }>;
  searchParams: Query;
}) {
  const say = await saying();
  const { courseId } = await params;
  const query = await readQuery(searchParams);
  const [stock = '', offers = '', menu = ''] = ['stock', 'offers', 'menu'].map((name) => String(query[name] ?? ''));
  const { course, sessions, coverage, understood } = await orNotFound(
    call(proposeDishes, { courseId, stock, offers, menu }),
  );
  return (
    <>
      <PageTitle title={`Dishes for ${course.title}`} over="Sessions still to come, each with what suits it best">
        <Link href={`/courses/${courseId}`} className="btn">
          Course
        </Link>
      </PageTitle>
      {sessions.length === 0 ? (
        <Empty title="No session is still to come">
          <p>Plan a season or add a session, and dishes are proposed for each.</p>
        </Empty>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
          <ol className="flex flex-col gap-4">
            {sessions.map((session) => (
              <li key={session.id} className="sheet p-5">
                <h2 className="text-lg font-bold">
                  <Link href={`/sessions/${session.id}`} className="link">
                    {session.number}. {session.title}
                  </Link>
                  <span className="block text-sm font-normal">
                    {say.shortDate(session.date)}, {say.time(session.startsAt)} · {session.mode}
                  </span>
                </h2>
                {session.dishes.length > 0 ? (
                  <p className="mt-2">Chosen: {session.dishes.map(({ title }) => title).join(', ')}.</p>
                ) : (
                  <ol className="mt-2 divide-y divide-base-300">
                    {session.proposals.map(({ recipeId, title, verdict, reasons, doubts }) => (
                      <li key={recipeId} className="flex flex-wrap items-start justify-between gap-3 py-2">
                        <div className="min-w-56 flex-1">
                          <p className="flex flex-wrap items-center gap-x-3">
                            <Link href={`/recipes/${recipeId}`} className="link font-bold">
                              {title}
                            </Link>
                            <Verdict verdict={verdict} />
                          </p>
                          {reasons.length > 0 && <p className="text-sm">{sentence(reasons)}</p>}
                          {doubts.length > 0 && <p className="text-sm text-base-content/80">{doubts.join(' ')}</p>}
                        </div>
                        <ActionForm action={take.bind(null, session.id, recipeId)} label={`Choose ${title}`}>
                          <button
                            type="submit"
                            className="btn btn-sm"
                            aria-label={`Choose ${title} for ${session.title}`}
                          >
                            Choose
                          </button>
                        </ActionForm>
                      </li>
                    ))}
                    {session.proposals.length === 0 && <li className="py-2">No recipe is there yet.</li>}
                  </ol>
                )}
              </li>
            ))}
          </ol>
          <div className="flex flex-col gap-5">
            <section className="sheet p-5" aria-labelledby="coverage">
              <h2 id="coverage" className="mb-2 text-xl font-bold">
                What the course covers
              </h2>
              <CoverageChart coverage={coverage} />
            </section>
            <section className="sheet p-5" aria-labelledby="at-hand">
              <h2 id="at-hand" className="mb-2 text-xl font-bold">
                At hand, on offer, on the menu
              </h2>
              <form className="flex flex-col gap-3">
                <Words label="In stock or given" name="stock" value={stock} hint="lentils, apples, 2 kg carrots" />
                <Words label="On offer" name="offers" value={offers} hint="red cabbage, eggs" />
                <Words
                  label="The school’s menu, as CSV"
                  name="menu"
                  value={menu}
                  hint="2027-01-12, carrot soup, apple crumble"
                />
                <button type="submit" className="btn btn-primary w-fit">
                  Rank again
                </button>
              </form>
              {understood.stock.length + understood.offers.length + understood.menuDays > 0 && (
                <p className="mt-3 text-sm">
                  Understood: {[...understood.stock, ...understood.offers].join(', ') || 'no food'}
                  {understood.menuDays > 0 && `; the menu of ${understood.menuDays} days`}.
                </p>
              )}
            </section>
          </div>
        </div>
      )}
    </>
  );
}

const sentence = (parts: readonly string[]) => `${parts.join('; ').replace(/^./, (letter) => letter.toUpperCase())}.`;

function Words({ label, name, value, hint }: { label: string; name: string; value: string; hint: string }) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-semibold">{label}</span>
      <textarea
        name={name}
        className="textarea min-h-16 w-full text-sm"
        maxLength={4000}
        defaultValue={value}
        placeholder={hint}
      />
    </label>
  );
}
