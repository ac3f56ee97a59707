/**
 * Colour of a copy in the pass "copy": the same in every frame and on every machine, so that a copy can be selected by
 * its colour. Pixels shared by copies mix their colours.
 *
 * Source: M. Jarzynski, M. Olano, Hash Functions for GPU Rendering, JCGT 9 (3), 2020: pcg3d.
 *
 * @param ribbon index of the ribbon
 * @param id number of the copy; 0 for a shape that is no copy
 * @returns linear red, green and blue, in steps of 1/256, above 0
 */
export function copyColour(ribbon: number, id: number): [number, number, number] {
  const seed = (n: number) => (Math.imul(n, 1664525) + 1013904223) >>> 0;
  let [x, y, z] = [seed(ribbon), seed(id), seed(0)];
  const stir = () => {
    x = (x + Math.imul(y, z)) >>> 0;
    y = (y + Math.imul(z, x)) >>> 0;
    z = (z + Math.imul(x, y)) >>> 0;
  };
  stir();
  [x, y, z] = [x ^ (x >>> 16), y ^ (y >>> 16), z ^ (z >>> 16)].map((n) => n >>> 0);
  stir();
  return [x, y, z].map((n) => ((n >>> 24) + 1) / 256) as [number, number, number];
}
