import Link from 'next/link';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Not among your duties' };

export default function NoDuty() {
  return (
    <>
      <PageTitle title="This is not among your duties" />
      <p className="mb-4">
        Families’ data is shown only to those whose duty needs it. Ask a coordinator if yours has changed.
      </p>
      <Link href="/duties" className="btn btn-primary">
        Go to the pack bench
      </Link>
    </>
  );
}
