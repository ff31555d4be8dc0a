import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { answerOnMyPage, viewMyPage } from '@/services/crew/own-page';
import { ServiceError } from '@/services/errors';
import { viewMyRounds } from '@/services/handout/driving';
import { OwnDuties } from '@/ui/crew/own-duties';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'My duties' };

async function answer(promiseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(answerOnMyPage, async () => {
    const { answer: said, note = '' } = fields(data);
    return call(answerOnMyPage, { promiseId, answer: said as 'yes' | 'no' | 'offer' | 'keep', note });
  });
}

/** The own duties of somebody who signs in. */
export default async function MyDuties() {
  const say = await saying();
  const own = await call(viewMyPage, {}).catch((error: unknown) => {
    if (error instanceof ServiceError && error.kind === 'not-found') return error.message;
    throw error;
  });
  if (typeof own === 'string')
    return (
      <>
        <PageTitle title="My duties" />
        <Empty title="You are not of the crew yet">
          <p>{own}</p>
        </Empty>
      </>
    );
  const rounds = await call(viewMyRounds, {});
  return (
    <>
      <PageTitle title="My duties" over={`${own.programme}: ${own.name}`}>
        {rounds.map((id) => (
          <Link key={id} href={`/round/${id}`} className="btn btn-primary">
            Your round to the doors
          </Link>
        ))}
        <Link href="/duties" className="btn">
          Bench and class
        </Link>
      </PageTitle>
      <div className="max-w-xl">
        <OwnDuties duties={own.duties} answer={(promiseId) => answer.bind(null, promiseId)} say={say} />
      </div>
    </>
  );
}
