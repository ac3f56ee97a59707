import { chmodSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { DATA, LOGS } from './paths.mjs';
import { Stop } from './say.mjs';

/** Makes a folder, which may be there, and looks whether it can be written; what is in its way is said in a sentence. */
export function makeFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const probe = path.join(folder, `.probe-${process.pid}`);
    writeFileSync(probe, 'x');
    rmSync(probe);
  } catch (error) {
    throw folderTrouble(error, folder);
  }
}

/** From here on what this command and its children write is for this user alone. */
export function writePrivately() {
  process.umask(0o077);
}

/** The folder of the log, for this user alone. */
export function makeLogFolder() {
  makeFolder(LOGS);
  chmodSync(LOGS, 0o700);
}

/** What keeps a folder of the data from being written, in a sentence. */
export function folderTrouble(error, folder = DATA) {
  const elsewhere = 'or set MAYPOLE_DATA to another folder';
  const which = folder === DATA ? `The data folder ${DATA}` : `The folder ${folder}, in which data is kept,`;
  switch (error.code) {
    case 'EEXIST':
    case 'ENOTDIR':
      return new Stop(`${which} is a file, or lies below one; move the file away, ${elsewhere}.`);
    case 'EISDIR':
      return new Stop(`${which} has a folder where Maypole keeps a file (${error.path}); move it away, ${elsewhere}.`);
    case 'EACCES':
    case 'EPERM':
      return new Stop(`${which} may not be written by this user; allow it, ${elsewhere}.`);
    case 'EROFS':
      return new Stop(`${which} is on a disk that may only be read; make it writable, ${elsewhere}.`);
    case 'ENOSPC':
    case 'EDQUOT':
      return new Stop(`The disk of the data folder ${DATA} is full; make room on it, ${elsewhere}.`);
    default:
      return error;
  }
}
