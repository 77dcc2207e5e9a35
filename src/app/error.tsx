'use client';

/** What is shown when a page fails: nothing typed is lost, and there is a way on. */
export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="text-2xl">This page could not be put together</h1>
      <p className="my-3">
        What was taken is on the disk, and what was half typed is kept by this browser. If it happens again, the
        terminal the program runs in says why.
      </p>
      <button type="button" onClick={reset} className="min-h-11 border border-ink px-4">
        Try again
      </button>
    </main>
  );
}
