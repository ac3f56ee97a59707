/** Writes every piece into a folder, with the files it names. Run by the export-all command. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { writeCarried } from './carried';
import { connect } from './db';
import { fileName } from './file-name';
import { listPieces, loadPiece } from './pieces';

const folder = process.argv[2];
const db = connect(process.env.DATABASE_URL!);
try {
  const all = [...(await listPieces(db)), ...(await listPieces(db, true))];
  for (const { id } of all) {
    const { source } = await loadPiece(db, id);
    const plain = fileName(source);
    let file = path.join(folder, plain);
    for (let n = 2; existsSync(file); n++)
      file = path.join(folder, plain.replace('.maypole.json', `-${n}.maypole.json`));
    await writeCarried(db, source, file);
  }
  console.log(`written: ${all.length}`);
} finally {
  await db.$client.end();
}
