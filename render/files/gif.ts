/**
 * Delays of a GIF's pictures (GIF89a, section 23, Graphic Control Extension), in hundredths of a second.
 *
 * @param put new delays, written if given
 * @returns the previous delays
 * @throws RangeError if it is not a GIF from end to end
 */
export function gifTimes(gif: Buffer, put?: readonly number[]): number[] {
  if (!/^GIF8[79]a$/.test(gif.subarray(0, 6).toString('latin1'))) throw new RangeError('This is no GIF.');
  const table = (packed: number) => (packed & 0x80 ? 3 * 2 ** ((packed & 7) + 1) : 0);
  const found: number[] = [];
  let at = 13 + table(gif[10]);
  const skipBlocks = () => {
    while (gif[at] > 0) at += gif[at] + 1;
    at++;
  };
  for (;;) {
    if (at >= gif.length) throw new RangeError('This GIF is cut off.');
    const kind = gif[at];
    if (kind === 0x3b) return found;
    if (kind === 0x21) {
      // The block before a picture: its delay follows the size and the flags.
      if (gif[at + 1] === 0xf9) {
        const delay = put?.[found.length];
        found.push(gif.readUInt16LE(at + 4));
        if (delay !== undefined) gif.writeUInt16LE(delay, at + 4);
      }
      at += 2;
      skipBlocks();
    } else if (kind === 0x2c) {
      at += 10 + table(gif[at + 9]) + 1;
      skipBlocks();
    } else throw new RangeError(`This GIF has a block of kind ${kind}, which is none.`);
  }
}
