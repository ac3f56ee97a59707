/** Writes every piece into a folder, with the files it names; or, after --piece, the one of a name or number. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { writeBundle } from './bundle';
import { connect } from '../data/db';
import { fileName } from '../http/file-name';
import { listPieces, loadPiece } from './pieces';

const named = (wanted: string) => (p: { id: string; name: string }) =>
  p.id === wanted || p.name.toLowerCase() === wanted.toLowerCase();

const folder = process.argv[2];
const db = connect(process.env.DATABASE_URL!);
try {
  const wanted = process.argv[3] === '--piece' ? process.argv[4] : undefined;
  const there = await listPieces(db);
  const all = wanted === undefined ? [...there, ...(await listPieces(db, true))] : there.filter(named(wanted));
  if (wanted !== undefined && all.length !== 1) {
    console.log(
      all.length === 0
        ? `There is no piece “${wanted}” on the shelf.`
        : `There are ${all.length} pieces “${wanted}”; name one by its number: ${all.map((p) => p.id).join(', ')}.`,
    );
    process.exitCode = 2;
    all.length = 0;
  }
  for (const { id } of all) {
    const { source } = await loadPiece(db, id);
    const plain = fileName(source);
    let file = path.join(folder, plain);
    for (let n = 2; existsSync(file); n++)
      file = path.join(folder, plain.replace('.maypole.json', `-${n}.maypole.json`));
    await writeBundle(db, source, file);
    if (wanted !== undefined) console.log(`file: ${path.basename(file)}`);
  }
  console.log(`written: ${all.length}`);
} finally {
  await db.$client.end();
}
