/** Milliseconds after which something else gets its turn: a lease is renewed meanwhile. */
const TURN = 100;

/** Lets what waits have its turn. */
export const nextTurn = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Goes through steps to what they come to; what takes long lets others have their turn. */
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
