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

/** Times both in one run, in turns, and gives the medians in milliseconds. */
export async function compare(name: string, ours: () => unknown, peerName: string, peer: () => unknown): Promise<Row> {
  const bench = new Bench({ time: 700, warmupTime: 250 });
  bench.add('ours', () => void ours()).add('peer', () => void peer());
  await bench.run();
  const [a, b] = bench.tasks.map((t) => {
    const result = t.result as { latency?: { p50?: number; mean: number } } | undefined;
    if (!result?.latency) throw new Error(`${name}: ${t.name} failed.`);
    return result.latency.p50 ?? result.latency.mean;
  });
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
  const cells = rows.map((r) => [r.name, `${r.ours.toFixed(2)} ${r.unit}`, r.peer === null ? '' : `${r.peer.toFixed(2)} ${r.unit}`, r.peerName, r.ratio === null ? '' : `× ${r.ratio.toFixed(2)}`]);
  const all = [['what', 'ours', 'peer', 'peer is', 'ours / peer'], ...cells];
  const widths = all[0].map((_, k) => Math.max(...all.map((row) => row[k].length)));
  for (const row of all) console.log(row.map((c, k) => (k === 0 || k === 3 ? c.padEnd(widths[k]) : c.padStart(widths[k]))).join('  '));
}
