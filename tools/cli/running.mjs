import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { DATA } from './paths.mjs';
import { isAlive } from './processes.mjs';

export const RUN_FILE = path.join(DATA, 'run.json');

/** The start command that is running now, if any. */
export function runningInstance() {
  if (!existsSync(RUN_FILE)) return undefined;
  try {
    const run = JSON.parse(readFileSync(RUN_FILE, 'utf8'));
    return isAlive(run.pid) ? run : undefined;
  } catch {
    return undefined;
  }
}
