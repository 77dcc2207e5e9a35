/** Runs once when the server starts: the data folder is taken before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || process.env.NEXT_PHASE === 'phase-production-build') return;
  const { startStore } = await import('@/server/start-store');
  await startStore();
}
