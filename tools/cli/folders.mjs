import { chmodSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { DATA, LOGS } from './paths.mjs';
import { Stop } from './say.mjs';

/** Creates a folder if necessary and checks that it is writable; an obstacle is a sentence. */
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

/** From here on, files of this command and its children are private to this user. */
export function writePrivately() {
  process.umask(0o077);
}

/** The log folder, private to this user. */
export function makeLogFolder() {
  makeFolder(LOGS);
  chmodSync(LOGS, 0o700);
}

/** Why a data folder cannot be written, as a sentence. */
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
