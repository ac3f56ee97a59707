/** `./maypole bench [name] [--json]`: ours and public libraries side by side in one run. */
import { copies } from './copies';
import { drawing } from './drawing';
import { files } from './files';
import { grain } from './grain';
import { growth } from './growth';
import { motion } from './motion';
import { noise } from './noise';
import { scrub } from './scrub';
import { shape } from './shape';
import { past } from './past';
import { heading, onRow, printed, type Row } from './table';
import { trace } from './trace';

const all: Record<string, () => Promise<Row[]>> = { noise, shape, copies, motion, scrub, drawing, trace, past, files };
/** Those that take long are measured only where they are named. */
const named: typeof all = { grain, growth };
const args = process.argv.slice(2);
const json = args.includes('--json');
const names = args.filter((a) => a !== '--json');

for (const name of names)
  if (!Object.hasOwn(all, name) && !Object.hasOwn(named, name)) {
    const known = [...Object.keys(all), ...Object.keys(named)].join(', ');
    console.error(`There is no benchmark “${name}”. Known: ${known}.`);
    process.exit(2);
  }
const wanted = names.length > 0 ? names : Object.keys(all);
const say = (text: string) => !json && console.log(text);
const left = Object.keys({ ...all, ...named }).filter((name) => !wanted.includes(name));
say(`Measured: ${wanted.join(', ')}.${left.length > 0 ? ` By name only: ${left.join(', ')}.` : ''}\n\n${heading()}`);

const told = new Set<Row>();
const tell = (row: Row) => {
  if (told.has(row)) return;
  told.add(row);
  console.log(printed(row, json));
};
onRow(tell);
for (const name of wanted) {
  const began = performance.now();
  for (const row of await (all[name] ?? named[name])()) tell(row);
  say(`${name}: ${((performance.now() - began) / 1000).toFixed(0)} s\n`);
}
