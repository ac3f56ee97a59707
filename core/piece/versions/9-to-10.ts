/** Version 10: a delivery has a size of its own, as a share of the picture's. */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);

export function from9to10(old: unknown): unknown {
  if (!isDoc(old)) return old;
  const { render } = old;
  const whole =
    isDoc(render) && isDoc(render.values) ? { render: { ...render, values: { scale: 100, ...render.values } } } : {};
  return { ...old, ...whole, version: 10 };
}
