import Link from 'next/link';

/** A link that was used, has ended, or never was: which of them is nobody's business. */
export function GoneLink() {
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">This link no longer works</h1>
      <p className="mb-5">
        It was used already, or its time has passed. Ask a coordinator for a new invitation, or ask for a new password
        again.
      </p>
      <Link href="/sign-in" className="btn btn-primary">
        Go to the sign-in
      </Link>
    </>
  );
}
