import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 px-4 py-16">
      <h1 className="text-3xl font-bold">Nothing is here</h1>
      <p>This page does not exist, or it belongs to something you have no duty for.</p>
      <Link href="/" className="btn btn-primary w-fit">
        Go to the countdown
      </Link>
    </main>
  );
}
