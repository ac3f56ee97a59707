/**
 * A declaration, which knows its own parameters, as one of all of its sort, which know none: what is
 * handed to its functions is always what its own parameters yielded, which the language cannot say.
 *
 * @example
 * export const defineThing = <const P extends Params>(thing: Thing<P>): Thing => widened(thing);
 */
export function widened<Wide>(declaration: unknown): Wide {
  return declaration as Wide;
}
