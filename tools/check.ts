/** The seam check on files: `./maypole check FILE… [--json]`. */
import { readFileSync } from 'node:fs';
import { makeReady, MissingAsset, provideAsset } from '@maypole/core/evaluate/assets';
import { readAsset } from '@maypole/core/files/kept';
import { linkPiece } from '@maypole/core/piece/link';
import { openParcel } from '@maypole/core/piece/parcel';
import { readPiece } from '@maypole/core/piece/read';
import { checkSeam, summarise } from '@maypole/core/seam/check';

const args = process.argv.slice(2);
const json = args.includes('--json');
const files = args.filter((a) => a !== '--json');

if (files.length === 0) {
  console.error('Name at least one piece file, or --demo.');
  process.exit(2);
}

const reports: unknown[] = [];
let status = 0;
const unreadable = (file: string, message: string, faults: unknown[] = []) => {
  status = 2;
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
  const parcel = openParcel(text);
  for (const [name, { data }] of Object.entries(parcel.assets ?? {}))
    provideAsset(name, readAsset(Buffer.from(data, 'base64')));
  const read = readPiece(parcel.source);
  if (!read.ok) {
    unreadable(file, read.message, [...read.faults]);
    continue;
  }
  for (const r of linkPiece(read.piece).ribbons)
    await makeReady(r, () => Promise.reject(new MissingAsset('not in this file')));
  // The line says whether it closes; how large each step is belongs to the full report.
  const report = await checkSeam(read.piece, 'draft', json);
  if (!report.closed && status === 0) status = 1;
  if (json) reports.push({ file, ...report });
  else console.log(summarise(report));
}
if (json) console.log(JSON.stringify(reports, null, 2));
process.exitCode = status;
