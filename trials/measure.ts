/** Does one thing in a process of its own, and measures how long it took and how much memory it had at most. */
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export interface Measured {
  /** Milliseconds. */
  readonly ms: number;
  /** Megabytes at most, over those the process had before. */
  readonly megabytes: number;
  readonly how: string;
}

/** Kilobytes a process has had at most (proc(5), VmHWM). */
const peak = (pid: number | string) =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/**
 * @param what `shape` or `document`, of the list in explosive.ts
 * @param seconds after which it is ended
 */
export function measured(what: 'file' | 'document', name: string, seconds = 60): Promise<Measured> {
  return new Promise((resolve) => {
    const child = fork(fileURLToPath(import.meta.url), [what, name], {
      execArgv: ['--import', 'tsx'],
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    const timer = setTimeout(() => child.kill('SIGKILL'), seconds * 1000);
    let told: Measured | undefined;
    child.on('message', (m) => (told = m as Measured));
    child.on('exit', (_code, signal) => {
      clearTimeout(timer);
      resolve(told ?? { ms: seconds * 1000, megabytes: Infinity, how: `ended by ${signal ?? 'itself'}` });
    });
  });
}

async function perform(what: string, name: string): Promise<void> {
  const { DOCUMENTS, FILES } = await import('./explosive');
  const { importShape } = await import('@maypole/core/files/import-shape');
  const { isKeptPicture, readAsset } = await import('@maypole/core/files/kept');
  const { readPiece } = await import('@maypole/core/piece/read');
  const { proveSeam } = await import('@maypole/core/seam/proof');
  const one = (what === 'file' ? FILES : DOCUMENTS).find((e) => e.name === name)!;
  const bytes = one.bytes();
  const text = what === 'document' ? bytes.toString('utf8') : '';
  global.gc?.();
  const before = peak(process.pid);
  const began = performance.now();
  let how: string;
  try {
    if (what === 'file') {
      if (isKeptPicture(name)) readAsset(bytes);
      else await importShape(name, bytes);
      how = 'taken';
    } else {
      const read = readPiece(text);
      how = read.ok ? `taken, ${proveSeam(read.piece).findings.length} findings` : read.message;
    }
  } catch (error) {
    how = (error as Error).name === 'FileTrouble' ? (error as Error).message : `FAULT ${(error as Error).stack}`;
  }
  const told: Measured = {
    ms: performance.now() - began,
    megabytes: peak(process.pid) - before,
    how: how.slice(0, 200),
  };
  process.send!(told, () => process.exit(0));
}

if (process.argv[1] === fileURLToPath(import.meta.url) && process.send) await perform(process.argv[2], process.argv[3]);
