const { port1, port2 } = new MessageChannel();
let waiting: (() => void)[] = [];
port1.onmessage = () => {
  const all = waiting;
  waiting = [];
  for (const go of all) go();
};

/**
 * Lets in what was told a worker meanwhile. By a message: a timer that is asked for again and again waits for 4 ms each
 * time (HTML Standard, 8.6 “Timers”), which is more than much of the work between.
 */
export const breathe = () =>
  new Promise<void>((resolve) => {
    waiting.push(resolve);
    port2.postMessage(null);
  });

/** Milliseconds in which nothing that was told is heard, at most, about. */
const LONG = 12;
let last = -Infinity;

/** The same, but not after every little piece of work. */
export async function breatheNowAndThen(): Promise<void> {
  if (performance.now() - last < LONG) return;
  await breathe();
  last = performance.now();
}
