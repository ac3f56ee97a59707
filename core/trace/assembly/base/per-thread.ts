/** Memory of one thread: the rest of the memory is shared. */

/** Its address. */
@external('env', 'threadBase')
declare const threadBase: u32;

let allocated: usize = 0;

/** Allocates zeroed bytes at a multiple of 16; once, as a module is initialised. */
export function allocate(bytes: usize): usize {
  const at = <usize>threadBase + allocated;
  allocated += (bytes + 15) & ~15;
  return at;
}

/** Bytes allocated. */
export function perThreadBytes(): u32 {
  return <u32>allocated;
}
