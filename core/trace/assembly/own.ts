/** Room of a thread for its own numbers: it shares the rest of the memory with others. */

/** Where it begins. */
@external('env', 'own')
declare const own: u32;

let taken: usize = 0;

/** So many bytes of it, all 0, at a multiple of 16; once, as a module begins. */
export function ownRoom(bytes: usize): usize {
  const at = <usize>own + taken;
  taken += (bytes + 15) & ~15;
  return at;
}

/** Bytes that have been taken. */
export function ownBytes(): u32 {
  return <u32>taken;
}
