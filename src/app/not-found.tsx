import { Link } from '@/ui/kit/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="text-2xl">There is nothing at this address</h1>
      <p className="my-3">The job may have been in another data folder.</p>
      <Link href="/" className="underline">
        To the list of jobs
      </Link>
    </main>
  );
}
