import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { viewRoll } from '@/services/roll/roll';
import { PageTitle } from '@/ui/page';
import { RollImport } from './roll-import';

export const metadata = { title: 'Bring in a roll' };

export default async function ImportRoll({ params }: { params: Promise<{ courseId: string }> }) {
  const { courseId } = await params;
  const { course } = await orNotFound(call(viewRoll, { courseId, editing: '' }));
  return (
    <>
      <PageTitle title="Bring in a roll" over={course.title}>
        <Link href={`/courses/${courseId}/roll`} className="btn">
          Back to the roll
        </Link>
      </PageTitle>
      <RollImport courseId={courseId} />
    </>
  );
}
