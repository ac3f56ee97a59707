import { linkSync, lstatSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { folderTrouble } from './folders.mjs';
import { identityOf, isSame, processesWith } from './identity.mjs';
import { DATA } from './paths.mjs';

const RUN_FILE = path.join(DATA, 'run.json');
const LOCK_FILE = path.join(DATA, 'lock');
/** A variable that the application of this installation has in its environment, and its value. */
export const MARK = ['MAYPOLE_INSTALLATION', DATA];

function read(file) {
  try {
    const value = JSON.parse(readFileSync(file, 'utf8'));
    return typeof value === 'object' && value !== null ? value : undefined;
  } catch {
    // Missing, cut or garbled: nothing is known by it.
    return undefined;
  }
}

/** A folder where a file of ours belongs is somebody's, and stays. */
function refuseFolder(file) {
  if (lstatSync(file, { throwIfNoEntry: false })?.isDirectory())
    throw folderTrouble(Object.assign(new Error('a folder'), { code: 'EISDIR', path: file }));
}

/** Written whole or not at all. */
function write(file, value) {
  const fresh = `${file}.${process.pid}`;
  refuseFolder(file);
  writeFileSync(fresh, JSON.stringify(value));
  renameSync(fresh, file);
}

/**
 * Takes the lock of this installation; one process has it at a time.
 *
 * @param doing what for: `start`, or what is done to the data meanwhile
 * @returns undefined, or the identity of the process that has it, and what it does
 */
export function takeLock(doing) {
  refuseFolder(LOCK_FILE);
  const own = `${LOCK_FILE}.${process.pid}`;
  writeFileSync(own, JSON.stringify({ ...identityOf(process.pid), doing }));
  try {
    for (;;) {
      try {
        // A link is made whole or not at all, and never over another.
        linkSync(own, LOCK_FILE);
        return undefined;
      } catch (error) {
        if (error.code !== 'EEXIST') throw folderTrouble(error);
      }
      const holder = read(LOCK_FILE);
      if (isSame(holder)) return holder;
      // Left behind. Whoever is first to move it away goes on; a lock that was taken meanwhile is put back.
      const old = `${own}.old`;
      try {
        renameSync(LOCK_FILE, old);
      } catch {
        continue;
      }
      const moved = read(old);
      if (isSame(moved)) {
        try {
          linkSync(old, LOCK_FILE);
        } catch {
          // Another has it by now.
        }
      }
      rmSync(old, { force: true });
    }
  } finally {
    rmSync(own, { force: true });
  }
}

/** What is done to the data at this moment by a command that is not to be broken off; undefined for nothing. */
export function busyWith() {
  const holder = read(LOCK_FILE);
  return holder?.doing !== 'start' && isSame(holder) ? holder.doing : undefined;
}

/** Gives the lock back, if this process has it. */
export function dropLock() {
  if (read(LOCK_FILE)?.pid === process.pid) rmSync(LOCK_FILE, { force: true });
}

/** Notes down what runs. */
export function noteRunning(application) {
  write(RUN_FILE, {
    keeper: identityOf(process.pid),
    application: identityOf(application.pid),
    address: application.address,
    local: application.local,
  });
}

export function forgetRunning() {
  rmSync(RUN_FILE, { force: true });
}

/**
 * What runs of this installation: the command that keeps it, the application and its address, each only where it is
 * surely that.
 */
export function runningNow() {
  const run = read(RUN_FILE);
  const holder = read(LOCK_FILE);
  const keeper = [run?.keeper, holder?.doing === 'start' ? holder : undefined].find(isSame);
  if (isSame(run?.application))
    return { keeper, application: run.application, address: run.address, local: run.local ?? run.address };
  // The note is lost; the application still has its mark.
  const [pid] = processesWith(...MARK).sort((a, b) => a - b);
  return { keeper, application: pid === undefined ? undefined : identityOf(pid), address: undefined };
}

/** The application that runs now and its address, if any. */
export function runningInstance() {
  const { application, address, local } = runningNow();
  return application && address ? { application, address, local } : undefined;
}
