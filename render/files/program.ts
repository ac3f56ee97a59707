import { spawn } from 'node:child_process';

/** An external program failed; the message is a sentence. */
export class ProgramTrouble extends Error {
  override readonly name = 'ProgramTrouble';
}

export interface Running {
  readonly signal?: AbortSignal;
  /** Receives output as it comes; resolves when more may come. */
  readonly onData?: (chunk: Buffer) => void | Promise<void>;
}

/** Bytes of a program's messages that are kept. */
const SAID = 4000;

/**
 * Runs a program to its end.
 *
 * @returns its output, if `onData` is not given
 * @throws ProgramTrouble if it is missing or fails; the signal's reason if it was aborted
 */
export function run(program: string, args: readonly string[], { signal, onData }: Running = {}): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    const chunks: Buffer[] = [];
    let said = '';
    let pending = Promise.resolve();
    let failure: unknown;
    const end = () => child.kill('SIGKILL');
    signal?.addEventListener('abort', end, { once: true });
    child.stdout.on('data', (chunk: Buffer) => {
      if (!onData) return void chunks.push(chunk);
      child.stdout.pause();
      pending = pending
        .then(() => onData(chunk))
        .catch((error: unknown) => {
          failure ??= error;
          end();
        })
        .then(() => void child.stdout.resume());
    });
    child.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-SAID)));
    child.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        new ProgramTrouble(
          error.code === 'ENOENT'
            ? `${program} is not there. Install it (Debian: apt-get install ffmpeg), then try again.`
            : `${program} could not be run (${error.code}).`,
        ),
      ),
    );
    child.on('close', (status) => {
      signal?.removeEventListener('abort', end);
      void pending.then(() => {
        if (signal?.aborted) return reject(signal.reason as Error);
        if (failure) return reject(failure as Error);
        if (status === 0) return resolve(Buffer.concat(chunks));
        const words = said.trim().split('\n').at(-1) ?? '';
        reject(
          new ProgramTrouble(`${program.split('/').at(-1)} ended with ${status}: ${words || 'it does not say why'}`),
        );
      });
    });
  });
}

export const FFMPEG = '/usr/bin/ffmpeg';
export const FFPROBE = '/usr/bin/ffprobe';
