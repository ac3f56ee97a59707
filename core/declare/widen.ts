/**
 * Turns a declaration, typed by its own parameters, into the common type of its sort. Its functions are only ever
 * called with what its own parameters yield, which the type system cannot express.
 *
 * @example
 * export const defineThing = <const P extends Params>(thing: Thing<P>): Thing => widened(thing);
 */
export function widened<Wide>(declaration: unknown): Wide {
  return declaration as Wide;
}
