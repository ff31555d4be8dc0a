import Link from 'next/link';
import { v7 } from 'uuid';
import { call, requireMember } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { sayInClass } from '@/services/classday/live';
import { viewTroubles } from '@/services/classday/trouble';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Ran short, or was wrong' };

async function settle(
  sessionId: string,
  sitting: string,
  item: string,
  id: string,
  _state: FormState | null,
): Promise<FormState> {
  'use server';
  return attempt(sayInClass, async () => {
    const at = new Date().toISOString();
    await call(sayInClass, {
      sessionId,
      sitting,
      now: at,
      events: [{ id, what: 'settled', item, enrolmentId: null, value: {}, at }],
    });
    return 'Settled.';
  });
}

interface Props {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

/** What ran short or was wrong, with the kits that can still be put right. */
export default async function Troubles({ params, searchParams }: Props) {
  const say = await saying();
  const { sessionId } = await params;
  const { group = '' } = await searchParams;
  const { actor } = await requireMember();
  const { session, troubles, isLocked } = await orNotFound(call(viewTroubles, { sessionId, sitting: group }));
  return (
    <>
      <PageTitle title={`Ran short, or was wrong: ${session.title}`} over={session.courseTitle}>
        <Link href={`/live/${sessionId}${group ? `?group=${group}` : ''}`} prefetch={false} className="btn">
          Back to the class
        </Link>
        {actor.role === 'coordinator' && isLocked && (
          <Link href={`/sessions/${sessionId}/kits`} className="btn">
            Kit sheet and its differences
          </Link>
        )}
      </PageTitle>
      {troubles.length === 0 && (
        <Empty title="Nothing was tapped">
          <p>In the class, one tap under “Trouble” says which food ran short and by how much.</p>
        </Empty>
      )}
      {troubles.map(({ id, what, food, percent, text, at, by, isSettled, kits, more, each }) => (
        <section key={id} className="sheet mb-3 p-4" aria-label={`${food || text} ${what}`}>
          <h2 className="text-lg font-bold">
            {food || 'Something'} {what === 'short' ? `ran short: ${percent} % more was needed` : 'was wrong'}
            {isSettled && ' (settled)'}
          </h2>
          {text && <p>“{text}”</p>}
          <p className="text-sm">
            {say.moment(at)}, {by}
          </p>
          {kits.length > 0 ? (
            <p className="mt-1">
              {sayCount(kits.length, 'kit')} with it {kits.length === 1 ? 'is' : 'are'} still here: {kits.join(', ')}.
              {more && (
                <b>
                  {' '}
                  To top them up: {more} in all, about {each} each.
                </b>
              )}
            </p>
          ) : (
            <p className="mt-1">
              {isLocked ? 'No kit with it is here any more.' : 'No kits are locked for this session.'}
            </p>
          )}
          {!isSettled && (
            <ActionForm
              action={settle.bind(null, sessionId, group, id, v7())}
              label={`Settle ${food || text}`}
              className="mt-2"
            >
              <button type="submit" className="btn h-11">
                It is settled
              </button>
            </ActionForm>
          )}
        </section>
      ))}
      <p className="text-sm">
        Kits that have not gone can be topped up by hand, or put right by the recipe: a changed amount shows as a
        difference of the kit sheet. What a sealed label says must still hold.
      </p>
    </>
  );
}
