import { AWAY } from '@/formats/outcome';

export interface FailedPage {
  readonly error: Error & { readonly digest?: string };
  readonly reset: () => void;
}

/** What is shown when a page fails: nothing typed is lost, and there is a way on. */
export function PageFailed({ error, reset }: FailedPage) {
  const isAway = error.digest === AWAY;
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="text-2xl">
        {isAway ? 'The database server does not answer' : 'This page could not be put together'}
      </h1>
      <p className="my-3">
        {isAway
          ? 'What was taken is in its log, and what was half typed is kept by this browser. Lines of a tape wait here and go out by themselves when it is back. Whoever runs the server should look at it.'
          : 'What was taken is on the disk, and what was half typed is kept by this browser. If it happens again, the terminal the program runs in says why.'}
      </p>
      <button
        type="button"
        onClick={() => (isAway ? location.reload() : reset())}
        className="min-h-11 border border-ink px-4"
      >
        Try again
      </button>
    </main>
  );
}
