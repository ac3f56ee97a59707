const known = new WeakMap<object, number>();
let next = 0;

/** A number that tells an object from all others for as long as it lives: for keys of what is made from it. */
export function identityOf(x: object): number {
  let id = known.get(x);
  if (id === undefined) known.set(x, (id = next++));
  return id;
}
