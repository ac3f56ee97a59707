/**
 * Version 3: keys joined by 'smooth' segments never go beyond each other; what 'smooth' was before, a
 * spline, is named so. All else that is new has a value at which it changes nothing.
 */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);

export function from2to3(old: unknown): unknown {
  const renamed = splines(old);
  return isDoc(renamed) ? { ...renamed, version: 3 } : renamed;
}

/** The document with every 'smooth' key of a motion by keys named a spline. */
function splines(x: unknown): unknown {
  if (Array.isArray(x)) return x.map(splines);
  if (!isDoc(x)) return x;
  const out = Object.fromEntries(Object.entries(x).map(([name, v]) => [name, splines(v)]));
  if (x.motion === 'keys' && Array.isArray(out.keys))
    out.keys = out.keys.map((k) => (isDoc(k) && k.to === 'smooth' ? { ...k, to: 'spline' } : k));
  return out;
}
