import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { faceNormal, faceMiddle } from '../../shape/faces';
import type { Mesh } from '../../shape/mesh';
import { faceCount } from '../../shape/mesh';
import { stepKind } from '../index';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const run = (kind: string, values: object, input: Mesh = empty): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, input, {
    clock: { frame: 0, frames: 60 },
    detail: 'draft',
  });
const normals = ({ connectivity: c, positions: p }: Mesh) =>
  Array.from({ length: faceCount(c) }, (_, f) => faceNormal(c, p, f));

describe('thinning out by a region as a whole', () => {
  const facing = { region: 'facing', regionTowards: [0, 1, 0], regionAngle: 30, softShare: 0 };
  it('leaves of a box just the faces that look up, however many there are', () => {
    for (const segments of [1, 3, 10]) {
      const box = run('box', { segments });
      const up = run('thin-out', { by: 'outside', ...facing }, box);
      expect(faceCount(up.connectivity)).toBe(segments * segments);
      for (const n of normals(up)) expect(n[1] / Math.hypot(...n)).toBeGreaterThan(0.99);
      const rest = run('thin-out', { by: 'inside', ...facing }, box);
      expect(faceCount(rest.connectivity) + faceCount(up.connectivity)).toBe(faceCount(box.connectivity));
    }
  });
  it('leaves what lies in a ball, whatever the share says', () => {
    const plane = run('plane', {});
    const inside = run(
      'thin-out',
      { by: 'outside', share: 0, region: 'ball', regionAt: [0, 0, 0], regionSize: 0.5, soft: 0 },
      plane,
    );
    const { connectivity: c, positions: p } = inside;
    expect(faceCount(c)).toBeGreaterThan(0);
    for (let f = 0; f < faceCount(c); f++) expect(Math.hypot(...faceMiddle(c, p, f))).toBeLessThan(0.6);
  });
  it('everywhere is inside, and nowhere outside', () => {
    const box = run('box', {});
    expect(faceCount(run('thin-out', { by: 'outside' }, box).connectivity)).toBe(faceCount(box.connectivity));
    expect(faceCount(run('thin-out', { by: 'inside' }, box).connectivity)).toBe(0);
  });
});
