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
  return { name, ours: a, peer: b, peerName, unit: 'ms', ratio: a / b };
}

/** A row without a peer, for what no library does; the limit it is held to stands in the name. */
export function alone(name: string, ours: number, unit = 'ms'): Row {
  return { name, ours, peer: null, peerName: '', unit, ratio: null };
}

export function print(rows: readonly Row[], json: boolean): void {
  if (json) {
    for (const row of rows) console.log(JSON.stringify(row));
    return;
  }
  const cells = rows.map((r) => [
    r.name,
    `${r.ours.toFixed(2)} ${r.unit}`,
    r.peer === null ? '' : `${r.peer.toFixed(2)} ${r.unit}`,
    r.peerName,
    r.ratio === null ? '' : `× ${r.ratio.toFixed(2)}`,
  ]);
  const all = [['what', 'ours', 'peer', 'peer is', 'ours / peer'], ...cells];
  const widths = all[0].map((_, k) => Math.max(...all.map((row) => row[k].length)));
  for (const row of all)
    console.log(row.map((c, k) => (k === 0 || k === 3 ? c.padEnd(widths[k]) : c.padStart(widths[k]))).join('  '));
}
