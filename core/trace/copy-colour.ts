/**
 * The colour that a copy has in the pass "copy": the same in every frame and for whoever makes it, so that a copy can be
 * picked by its colour. Where copies share a pixel it has shares of their colours.
 *
 * Source: M. Jarzynski, M. Olano, Hash Functions for GPU Rendering, JCGT 9 (3), 2020: pcg3d.
 *
 * @param ribbon number of the ribbon, in their order
 * @param id number of the copy; 0 for a form that stands alone
 * @returns red, green and blue as light, steps of 1/256 above 0
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
