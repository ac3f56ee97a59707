/** The seam check on files: `./maypole check FILE… [--json]`. */
import { readFileSync } from 'node:fs';
import type { Piece } from '@maypole/core/piece/piece';
import { checkSeam, summarise } from '@maypole/core/seam/check';
import { pieceFrom, PieceTrouble } from '@maypole/render/work/piece-from';

const args = process.argv.slice(2);
const json = args.includes('--json');
const files = args.filter((a) => a !== '--json');

if (files.length === 0) {
  console.error('Name at least one piece file, or --demo.');
  process.exit(2);
}

const reports: unknown[] = [];
let status = 0;
const unreadable = (file: string, message: string, faults: unknown[] = [], ends = 2) => {
  status = status === 2 ? 2 : ends;
  if (json) reports.push({ file, error: message, faults });
  else console.error(`${file}: ${message}`);
};

for (const file of files) {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    unreadable(
      file,
      (error as NodeJS.ErrnoException).code === 'ENOENT'
        ? 'there is no such file.'
        : `cannot be read (${(error as NodeJS.ErrnoException).code}).`,
    );
    continue;
  }
  let piece: Piece;
  try {
    piece = await pieceFrom(text);
  } catch (error) {
    if (!(error instanceof PieceTrouble)) throw error;
    unreadable(file, error.message, [...error.faults], error.missing ? 3 : 2);
    continue;
  }
  // The line says whether it closes; step sizes belong to the full report.
  const report = await checkSeam(piece, 'draft', json);
  if (!report.closed && status === 0) status = 1;
  if (json) reports.push({ file, ...report });
  else console.log(summarise(report));
}
if (json) console.log(JSON.stringify(reports, null, 2));
process.exitCode = status;
