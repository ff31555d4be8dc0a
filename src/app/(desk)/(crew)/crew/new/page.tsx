import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { addCrewMember, listCrew } from '@/services/crew/people';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { CrewMemberFields, crewFrom } from '../crew-fields';

export const metadata = { title: 'Add somebody to the crew' };

async function add(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addCrewMember, async () => {
    await call(addCrewMember, crewFrom(data));
    redirect('/crew');
  });
}

export default async function NewCrewMember() {
  const { people, places, members } = await call(listCrew, {});
  return (
    <>
      <PageTitle title="Add somebody to the crew" over="With or without a sign-in of their own">
        <Link href="/crew" className="btn">
          Crew
        </Link>
      </PageTitle>
      <ActionForm action={add} label="Add somebody to the crew" className="sheet flex max-w-3xl flex-col gap-4 p-5">
        <CrewMemberFields others={people} places={places} members={members} />
        <button type="submit" className="btn btn-primary w-fit">
          Add to the crew
        </button>
      </ActionForm>
    </>
  );
}
