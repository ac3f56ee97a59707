const { port1, port2 } = new MessageChannel();
let waiting: (() => void)[] = [];
port1.onmessage = () => {
  const all = waiting;
  waiting = [];
  for (const go of all) go();
};

/**
 * Yields to a worker's waiting messages, by a message: a nested timer waits at least 4 ms (HTML Standard, 8.6
 * “Timers”), more than much of the work between.
 */
export const yieldToMessages = () =>
  new Promise<void>((resolve) => {
    waiting.push(resolve);
    port2.postMessage(null);
  });

/** Most milliseconds without yielding. */
const LONG = 12;
let last = -Infinity;

/** The same, but not after every small piece of work. */
export async function yieldSometimes(): Promise<void> {
  if (performance.now() - last < LONG) return;
  await yieldToMessages();
  last = performance.now();
}
