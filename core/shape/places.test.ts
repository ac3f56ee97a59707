import { describe, expect, it } from 'vitest';
import { form } from '../fixtures/forms';
import { readObj } from '../files/obj';
import { steps } from '../steps/index';
import type { Mesh } from './mesh';

/** Places (UV) of the corners of a face, with where they stand. */
function faces({ connectivity: c, positions }: Mesh) {
  return Array.from({ length: c.faceStart.length - 1 }, (_, f) =>
    Array.from({ length: c.faceStart[f + 1] - c.faceStart[f] }, (_, k) => {
      const i = c.faceStart[f] + k;
      const p = 3 * c.corners[i];
      return { u: c.uv![2 * i], v: c.uv![2 * i + 1], x: positions[p], y: positions[p + 1], z: positions[p + 2] };
    }),
  );
}

/** Twice the signed area of a face on the map; corners run counter-clockwise seen from outside. */
const area = (face: readonly { u: number; v: number }[]) =>
  face.reduce((sum, a, i) => {
    const b = face[(i + 1) % face.length];
    return sum + a.u * b.v - b.u * a.v;
  }, 0);

const forms = steps.all.filter((k) => k.group === 'form' && k.kind !== 'imported').map((k) => k.kind);

describe('places on surfaces', () => {
  it('are never mirrored, on whatever form has them', () => {
    let [withPlaces, seen] = [0, 0];
    for (const kind of forms) {
      const mesh = form(kind);
      if (!mesh.connectivity.uv) continue;
      withPlaces++;
      for (const face of faces(mesh)) {
        seen++;
        expect(area(face), kind).toBeGreaterThan(-1e-6);
      }
    }
    expect(withPlaces).toBeGreaterThanOrEqual(12);
    expect(seen).toBeGreaterThan(10_000);
  });
  it('let a picture be read upright from in front', () => {
    for (const kind of ['sphere', 'cylinder', 'capsule', 'geodesic', 'torus']) {
      const all = faces(form(kind));
      const near = 0.8 * Math.max(...all.flat().map((p) => p.z));
      const front = all.filter((face) => face.every((p) => p.z > near && Math.abs(p.y) < 0.3));
      expect(front.length, kind).toBeGreaterThan(0);
      for (const face of front)
        for (const a of face)
          for (const b of face) {
            if (b.x - a.x > 0.02 && Math.abs(b.y - a.y) < 1e-3) expect(b.u, kind).toBeGreaterThan(a.u);
            if (b.y - a.y > 0.02 && Math.abs(b.x - a.x) < 1e-3) expect(b.v, kind).toBeGreaterThan(a.v);
          }
    }
  });
  it('let a picture on the floor be read by who stands before it', () => {
    for (const face of faces(form('plane')))
      for (const a of face)
        for (const b of face) {
          if (b.x - a.x > 0.01) expect(b.u).toBeGreaterThan(a.u);
          if (b.z - a.z > 0.01) expect(b.v).toBeLessThan(a.v);
        }
  });
  it('stand upright on the sides of a box, and face the front above', () => {
    for (const face of faces(form('box')))
      for (const a of face)
        for (const b of face) {
          const side = face.some((p) => Math.abs(p.y - a.y) > 1e-3);
          if (side && b.y - a.y > 1e-3) expect(b.v).toBeGreaterThan(a.v);
          if (!side && a.y > 0 && b.x - a.x > 1e-3) expect(b.u).toBeGreaterThan(a.u);
          if (!side && a.y > 0 && b.z - a.z > 1e-3) expect(b.v).toBeLessThan(a.v);
        }
  });
  it('are those of the file where a form comes from one, mirrored or not', () => {
    const mirrored = 'v 0 0 0\nv 1 0 0\nv 0 1 0\nvt 1 0\nvt 0 0\nvt 1 1\nf 1/1 2/2 3/3\n';
    expect([...readObj(new TextEncoder().encode(mirrored)).connectivity.uv!]).toEqual([1, 0, 0, 0, 1, 1]);
  });
});
