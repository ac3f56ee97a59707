/**
 * Version 7: how frames are made is said once for all outputs of a piece, as the first of them had it; and PNG pictures
 * say by themselves that they are see-through, where they were so by a clear backdrop.
 */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);

/** What outputs said of their frames, and now the rendering does. */
const OF_FRAMES = ['detail', 'look', 'range', 'from', 'to', 'subframes'];

const part = (values: Doc, wanted: boolean): Doc =>
  Object.fromEntries(Object.entries(values).filter(([name]) => OF_FRAMES.includes(name) === wanted));

export function from6to7(old: unknown): unknown {
  if (!isDoc(old)) return old;
  const outputs = Array.isArray(old.outputs) ? (old.outputs as unknown[]) : undefined;
  const first = outputs?.find((o): o is Doc => isDoc(o) && isDoc(o.values));
  const { backdrop } = isDoc(old.scene) ? old.scene : {};
  const clear = Array.isArray(backdrop) && isDoc(backdrop[0]) && backdrop[0].kind === 'clear';
  const own = (o: Doc) => ({ ...part(o.values as Doc, false), ...(clear && o.kind === 'png' ? { clear: true } : {}) });
  // An identifier that nothing in the document has.
  const text = JSON.stringify(old);
  let id = 'render';
  for (let n = 2; text.includes(`"${id}"`); n++) id = `render-${n}`;
  return {
    ...old,
    ...(outputs
      ? {
          outputs: outputs.map((o) => (isDoc(o) && isDoc(o.values) ? { ...o, values: own(o) } : o)),
        }
      : {}),
    render: { id, kind: 'frames', on: true, values: first ? part(first.values as Doc, true) : {} },
    version: 7,
  };
}
