/** Runs trials; see ./maypole trial. */
import { documents } from './documents';
import { files } from './files';
import { kills } from './kills';
import { load } from './load';
import { queue } from './queue';
import { renders } from './renders';
import { requests } from './requests';
import { soak } from './soak';
import type { Trial } from './trial';

const TRIALS: Readonly<Record<string, Trial>> = { documents, files, requests, kills, renders, queue, load, soak };

async function main(args: string[]): Promise<number> {
  const full = args.includes('--long');
  const option = (name: string) => {
    const at = args.indexOf(name);
    return at < 0 ? undefined : Number(args.splice(at, 2)[1]);
  };
  const [times, seed] = [option('--times'), option('--seed') ?? 1];
  const names = args.filter((a) => !a.startsWith('--'));
  const unknown = names.find((n) => !Object.hasOwn(TRIALS, n));
  if (unknown !== undefined || [times, seed].some(Number.isNaN)) {
    console.error(`There is no trial “${unknown ?? ''}”. Known, with --long, --times N and --seed N:`);
    for (const [name, { help }] of Object.entries(TRIALS)) console.error(`  ${name.padEnd(10)} ${help}`);
    return 2;
  }
  let status = 0;
  // The last lasts an hour, and is asked for by name.
  for (const name of names.length > 0 ? names : Object.keys(TRIALS).filter((n) => n !== 'soak')) {
    const trial = TRIALS[name];
    console.log(`\n${name}: ${trial.help}`);
    const began = performance.now();
    const found = await trial.run(times ?? (full ? trial.full : trial.short), seed, (words) =>
      console.log(`  ${words}`),
    );
    const { figures } = found;
    const wrong = [...found.wrong, ...(found.slow ?? [])];
    for (const [what, value] of Object.entries(figures)) console.log(`  ${what}: ${value}`);
    for (const sentence of wrong.slice(0, 20)) console.log(`  WRONG: ${sentence}`);
    console.log(
      `  ${wrong.length === 0 ? 'nothing wrong' : `${wrong.length} wrong`}, in ${((performance.now() - began) / 1000).toFixed(0)} s`,
    );
    if (wrong.length > 0) status = 1;
  }
  return status;
}

process.exitCode = await main(process.argv.slice(2));
