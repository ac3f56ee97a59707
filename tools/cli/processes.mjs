import { spawn } from 'node:child_process';

/** Runs a program to its end; resolves with its status and, if captured, its output. */
export function runProgram(program, args, options = {}) {
  const { capture = false, quiet = false, ...rest } = options;
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, {
      stdio: capture || quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      ...rest,
    });
    let output = '';
    child.stdout?.on('data', (d) => (output += d));
    child.stderr?.on('data', (d) => (output += d));
    child.on('error', reject);
    child.on('close', (status, signal) => resolve({ status: status ?? (signal ? 128 : 1), output }));
  });
}

export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until `ready()` is true; false after `ms`. */
export async function waitFor(ready, ms, every = 100) {
  const end = Date.now() + ms;
  for (;;) {
    if (await ready()) return true;
    if (Date.now() > end) return false;
    await pause(every);
  }
}

/** Asks a process to end, then kills it. */
export async function endProcess(pid, signal = 'SIGTERM', ms = 15_000) {
  if (!pid || !isAlive(pid)) return;
  try {
    process.kill(pid, signal);
  } catch {
    return;
  }
  if (!(await waitFor(() => !isAlive(pid), ms))) {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // It ended in the meantime.
    }
  }
}
