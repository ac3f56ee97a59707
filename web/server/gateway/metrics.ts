import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

interface Metrics {
  readonly registry: Registry;
  readonly requests: Counter<'method' | 'status'>;
  readonly seconds: Histogram<'method'>;
  readonly refused: Counter<'why'>;
  readonly jobs: Counter<'job' | 'how'>;
  readonly jobSeconds: Histogram<'job'>;
  readonly connections: Gauge;
  readonly waiting: Gauge;
}

declare global {
  var maypoleMetrics: Metrics | undefined;
}

/** Counters and measures of the process, exported in the Prometheus text format. */
export function metrics(): Metrics {
  return (globalThis.maypoleMetrics ??= make());
}

function make(): Metrics {
  const registry = new Registry();
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  const buckets = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30];
  return {
    registry,
    requests: new Counter({
      name: 'maypole_requests_total',
      help: 'Requests that were answered.',
      labelNames: ['method', 'status'],
      registers,
    }),
    seconds: new Histogram({
      name: 'maypole_request_seconds',
      help: 'From the headers of a request to the end of its answer.',
      labelNames: ['method'],
      buckets,
      registers,
    }),
    refused: new Counter({
      name: 'maypole_refused_total',
      help: 'Connections and requests that were turned away before the application.',
      labelNames: ['why'],
      registers,
    }),
    jobs: new Counter({
      name: 'maypole_jobs_total',
      help: 'Jobs that ran in processes of their own.',
      labelNames: ['job', 'how'],
      registers,
    }),
    jobSeconds: new Histogram({
      name: 'maypole_job_seconds',
      help: 'Time a job took, without waiting.',
      labelNames: ['job'],
      buckets,
      registers,
    }),
    connections: new Gauge({ name: 'maypole_connections', help: 'Connections that are open.', registers }),
    waiting: new Gauge({ name: 'maypole_jobs_waiting', help: 'Jobs that wait for a process.', registers }),
  };
}
