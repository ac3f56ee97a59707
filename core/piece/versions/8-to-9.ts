/** Version 9: Tumble may go round a polygon, and says by how many corners, steps a side and rounds. */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);
const listOf = (x: unknown, change: (item: unknown) => unknown) => (Array.isArray(x) ? x.map(change) : x);

export function from8to9(old: unknown): unknown {
  if (!isDoc(old)) return old;
  const step = (s: unknown) =>
    isDoc(s) && s.kind === 'tumble' && isDoc(s.values)
      ? { ...s, values: { corners: 4, along: 2, rounds: 1, ...s.values } }
      : s;
  const ribbon = (r: unknown) => (isDoc(r) ? { ...r, steps: listOf(r.steps, step) } : r);
  return { ...old, ...('ribbons' in old ? { ribbons: listOf(old.ribbons, ribbon) } : {}), version: 9 };
}
