import path from 'node:path';
import { JOBS, type JobName } from './limits';
import { JobPool } from './pool';
import type { Work } from './work';

declare global {
  var maypoleJobs: JobPool | undefined;
}

/** The job program: built beside the application, or run from source. */
function program(): string {
  return process.env.MAYPOLE_JOBS ?? path.join(process.cwd(), 'web/server/jobs/process.mjs');
}

/** Runs a job in a process of its own, in turn with others; see JobPool.run for what it throws. */
export function doJob<N extends JobName>(
  client: string,
  job: N,
  given: Parameters<Work[N]>[0],
): Promise<Awaited<ReturnType<Work[N]>>> {
  const pool = (globalThis.maypoleJobs ??= new JobPool({ program: program() }));
  return pool.run(client, job, given, JOBS[job]) as Promise<Awaited<ReturnType<Work[N]>>>;
}
