const known = new WeakMap<object, number>();
let next = 0;

/** A number that identifies an object for as long as it lives: for cache keys. */
export function identityOf(x: object): number {
  let id = known.get(x);
  if (id === undefined) known.set(x, (id = next++));
  return id;
}
