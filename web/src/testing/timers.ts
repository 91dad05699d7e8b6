/** Timers that were started and still run, by who started them. */
const running = new Map<ReturnType<typeof setTimeout>, string>();
const [start, stop] = [globalThis.setTimeout, globalThis.clearTimeout];

globalThis.setTimeout = ((work: (...all: unknown[]) => void, ms?: number, ...all: unknown[]) => {
  const timer = start(() => {
    running.delete(timer);
    work(...all);
  }, ms);
  running.set(timer, new Error(`a timer of ${ms ?? 0} ms`).stack ?? "");
  return timer;
}) as typeof setTimeout;
globalThis.clearTimeout = ((timer?: ReturnType<typeof setTimeout>) => {
  if (timer !== undefined) running.delete(timer);
  stop(timer);
}) as typeof clearTimeout;

/** What still runs after all that was due now has run; it is stopped. */
export async function leftRunning(): Promise<string[]> {
  await new Promise((resolve) => start(resolve, 2));
  const left = [...running.values()];
  for (const timer of running.keys()) stop(timer);
  running.clear();
  return left;
}
