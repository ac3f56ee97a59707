/** A process that runs one job after another; see JobPool. */
import os from 'node:os';
import { answerOf } from '../http/answer-of';
import type { JobName } from './limits';
import type { Answer, Order } from './pool';
import { WORK } from './work';

process.on('message', (order) => {
  void perform(order as Order).then((answer) => process.send!(answer));
});
// Below requests, which need no job, and above renders, which nobody waits for.
os.setPriority(5);
// Its parent is gone.
process.on('disconnect', () => process.exit(0));

async function perform({ job, given }: Order): Promise<Answer> {
  try {
    const work = WORK[job as JobName] as (given: unknown) => Promise<unknown>;
    return { ok: true, value: await work(given) };
  } catch (error) {
    const known = answerOf(error);
    return known
      ? { ok: false, ...known }
      : {
          ok: false,
          status: 500,
          error: '',
          fault: error instanceof Error ? (error.stack ?? error.message) : `${error}`,
        };
  }
}
