import { Bench } from 'tinybench';

/** One comparison: what ours takes, what the peer takes, both in `unit` (smaller is better). */
export interface Row {
  readonly name: string;
  readonly ours: number;
  readonly peer: number | null;
  readonly peerName: string;
  readonly unit: string;
  /** ours / peer: below 1, ours is faster; null without a peer. */
  readonly ratio: number | null;
}

const ROUNDS = 9;

let listener: (row: Row) => void = () => undefined;

/** Calls `then` with every row as soon as it is measured: a run that is cut short has said what it knows. */
export function onRow(then: (row: Row) => void): void {
  listener = then;
}

function measured(row: Row): Row {
  listener(row);
  return row;
}

/**
 * Times both in one run, in turns of a tenth of a second, after both have run long enough to be
 * compiled, and gives the medians in milliseconds: on a busy machine both meet the same weather.
 */
export async function compare(name: string, ours: () => unknown, peerName: string, peer: () => unknown): Promise<Row> {
  const turn = async (time: number): Promise<number[]> => {
    const bench = new Bench({ time, iterations: 2, warmup: false });
    bench.add('ours', () => void ours()).add('peer', () => void peer());
    await bench.run();
    return bench.tasks.map((t) => {
      const result = t.result as { latency?: { p50?: number; mean: number } } | undefined;
      if (!result?.latency) throw new Error(`${name}: ${t.name} failed.`);
      return result.latency.p50 ?? result.latency.mean;
    });
  };
  await turn(800);
  const rounds: number[][] = [];
  for (let i = 0; i < ROUNDS; i++) rounds.push(await turn(100));
  const [a, b] = [0, 1].map((k) => rounds.map((r) => r[k]).sort((p, q) => p - q)[Math.floor(ROUNDS / 2)]);
  return measured({ name, ours: a, peer: b, peerName, unit: 'ms', ratio: a / b });
}

/** A row without a peer, for what no library does; the limit it is held to stands in the name. */
export function alone(name: string, ours: number, unit = 'ms'): Row {
  return measured({ name, ours, peer: null, peerName: '', unit, ratio: null });
}

/** Widths of the columns of a printed row. */
const WIDTHS = [64, 14, 14, 26, 8];
const HEADINGS = ['what', 'ours', 'peer', 'peer is', 'ours / peer'];

function line(cells: readonly string[]): string {
  return cells.map((c, k) => (k === 0 || k === 3 ? c.padEnd(WIDTHS[k]) : c.padStart(WIDTHS[k]))).join('  ');
}

export const heading = (): string => line(HEADINGS);

/** A row as it is printed: a line of a table, or JSON. */
export function printed(r: Row, json: boolean): string {
  if (json) return JSON.stringify(r);
  return line([
    r.name,
    `${r.ours.toFixed(2)} ${r.unit}`,
    r.peer === null ? '' : `${r.peer.toFixed(2)} ${r.unit}`,
    r.peerName,
    r.ratio === null ? '' : `× ${r.ratio.toFixed(2)}`,
  ]);
}
