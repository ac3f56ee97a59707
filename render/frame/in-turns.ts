/** Milliseconds after which other work gets a turn, such as renewing a lease. */
const TURN = 100;

/** Yields to waiting work. */
export const nextTurn = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Runs a generator to its result, yielding to other work if it takes long. */
export async function inTurns<T>(steps: Generator<void, T>): Promise<T> {
  let began = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - began < TURN) continue;
    await nextTurn();
    began = performance.now();
  }
}
