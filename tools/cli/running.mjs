import { linkSync, lstatSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { folderTrouble } from './folders.mjs';
import { identityOf, isSame, processesWith } from './identity.mjs';
import { DATA } from './paths.mjs';

const RUN_FILE = path.join(DATA, 'run.json');
const LOCK_FILE = path.join(DATA, 'lock');
/** An environment variable that marks the application of this installation. */
export const MARK = ['MAYPOLE_INSTALLATION', DATA];

function read(file) {
  try {
    const value = JSON.parse(readFileSync(file, 'utf8'));
    return typeof value === 'object' && value !== null ? value : undefined;
  } catch {
    // Missing, truncated or garbled: unknown.
    return undefined;
  }
}

/** A folder in place of one of our files belongs to somebody, and stays. */
function refuseFolder(file) {
  if (lstatSync(file, { throwIfNoEntry: false })?.isDirectory())
    throw folderTrouble(Object.assign(new Error('a folder'), { code: 'EISDIR', path: file }));
}

/** Writes a file whole or not at all. */
function write(file, value) {
  const fresh = `${file}.${process.pid}`;
  refuseFolder(file);
  writeFileSync(fresh, JSON.stringify(value));
  renameSync(fresh, file);
}

/**
 * Takes this installation's lock, which one process holds at a time.
 *
 * @param doing what for: `start`, or what is done to the data meanwhile
 * @returns undefined, or the identity of the holder, and what it does
 */
export function takeLock(doing) {
  refuseFolder(LOCK_FILE);
  const own = `${LOCK_FILE}.${process.pid}`;
  writeFileSync(own, JSON.stringify({ ...identityOf(process.pid), doing }));
  try {
    for (;;) {
      try {
        // Linking is atomic and never replaces a file.
        linkSync(own, LOCK_FILE);
        return undefined;
      } catch (error) {
        if (error.code !== 'EEXIST') throw folderTrouble(error);
      }
      const holder = read(LOCK_FILE);
      if (isSame(holder)) return holder;
      // A stale lock. Whoever moves it away first continues; a lock that was taken meanwhile is put back.
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
          // Another process has it by now.
        }
      }
      rmSync(old, { force: true });
    }
  } finally {
    rmSync(own, { force: true });
  }
}

/** What an uninterruptible command is doing to the data right now; undefined for nothing. */
export function busyWith() {
  const holder = read(LOCK_FILE);
  return holder?.doing !== 'start' && isSame(holder) ? holder.doing : undefined;
}

/** Releases the lock, if this process has it. */
export function dropLock() {
  if (read(LOCK_FILE)?.pid === process.pid) rmSync(LOCK_FILE, { force: true });
}

/** Records what is running. */
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
 * What is running of this installation: the command that supervises it, the application and its address, each only if
 * certain.
 */
export function runningNow() {
  const run = read(RUN_FILE);
  const holder = read(LOCK_FILE);
  const keeper = [run?.keeper, holder?.doing === 'start' ? holder : undefined].find(isSame);
  if (isSame(run?.application))
    return { keeper, application: run.application, address: run.address, local: run.local ?? run.address };
  // The record is lost; the application still has its mark.
  const [pid] = processesWith(...MARK).sort((a, b) => a - b);
  return { keeper, application: pid === undefined ? undefined : identityOf(pid), address: undefined };
}

/** The running application and its address, if any. */
export function runningInstance() {
  const { application, address, local } = runningNow();
  return application && address ? { application, address, local } : undefined;
}
