'use client';

/** Shown when a page cannot be drawn, most often because the database is starting again. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 px-4 py-16">
      <h1 className="text-3xl font-bold">This page could not be shown</h1>
      <p>
        Nothing you saved is lost. The database may be starting again: wait a few seconds, then try once more. If it
        stays so, ask a coordinator.
      </p>
      <button type="button" className="btn btn-primary w-fit" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
