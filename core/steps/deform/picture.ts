import { NoSurface } from '../../noise/sample';
import { vertexUv } from '../../shape/attributes';
import type { Mesh } from '../../shape/mesh';
import type { Picture } from '../../assets/asset';

/** Bilinear brightness of a picture, −1 for black to 1 for white; it repeats in both directions. */
function brightness(p: Picture, u: number, v: number): number {
  const x = (u - Math.floor(u)) * p.width - 0.5;
  const y = (1 - (v - Math.floor(v))) * p.height - 0.5;
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [x - i, y - j];
  const at = (m: number, n: number) =>
    p.values[(((n % p.height) + p.height) % p.height) * p.width + (((m % p.width) + p.width) % p.width)];
  return (
    2 * ((1 - b) * ((1 - a) * at(i, j) + a * at(i + 1, j)) + b * ((1 - a) * at(i, j + 1) + a * at(i + 1, j + 1))) - 1
  );
}

/** A picture read at each vertex, by its texture coordinates or projected along an axis. */
export function heightAt(p: Picture, laid: 'surface' | 'x' | 'y' | 'z', width: number, mesh: Mesh): Float32Array {
  const out = new Float32Array(mesh.positions.length / 3);
  if (laid === 'surface') {
    const uv = vertexUv(mesh.connectivity);
    if (!uv)
      throw new NoSurface(
        'This form has no places on its surface (UV) any more; lay the picture along an axis, or put the step ' +
          'before the one that made new faces.',
      );
    for (let i = 0; i < out.length; i++) out[i] = brightness(p, uv[2 * i], uv[2 * i + 1]);
    return out;
  }
  // Projected from the side, from above and from the front.
  const [a, b, sign] = laid === 'x' ? [2, 1, -1] : laid === 'y' ? [0, 2, 1] : [0, 1, 1];
  const height = (width * p.height) / p.width;
  for (let i = 0; i < out.length; i++) {
    const [x, y] = [
      sign * mesh.positions[3 * i + a],
      laid === 'y' ? -mesh.positions[3 * i + b] : mesh.positions[3 * i + b],
    ];
    out[i] = brightness(p, 0.5 + x / width, 0.5 + y / height);
  }
  return out;
}
