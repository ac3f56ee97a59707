import { ConnectivityBuilder, connectivityStore, meshOf } from './builder';
import { FINISH, type Mesh } from './mesh';

/** A point of a profile: radius, height, and the shading group of the band that begins here. */
export interface ProfilePoint {
  readonly r: number;
  readonly y: number;
  readonly group?: number;
}

const store = connectivityStore(24);

/**
 * Revolves a profile about the y axis. It runs from bottom to top on the outside; where it begins or ends on the axis
 * there is a pole with a fan of triangles. A closed profile makes a ring.
 */
export function lathe(profile: readonly ProfilePoint[], sides: number, closed = false): Mesh {
  const n = profile.length;
  const pole = (i: number) => !closed && (i === 0 || i === n - 1) && profile[i].r === 0;
  const [low, high] = [pole(0), pole(n - 1)];
  const rings = n - Number(low) - Number(high);
  const total = rings * sides + Number(low) + Number(high);
  const groups = profile.map((p) => p.group ?? 0);
  const connectivity = store(`${sides}/${n}/${low}/${high}/${closed}/${groups.join()}`, () => {
    const faces = new ConnectivityBuilder();
    const at = (row: number, i: number) =>
      low && row === 0
        ? rings * sides
        : high && row === n - 1
          ? rings * sides + Number(low)
          : (row - Number(low)) * sides + (i % sides);
    const last = closed ? n : n - 1;
    for (let row = 0; row < last; row++) {
      const next = (row + 1) % n;
      for (let i = 0; i < sides; i++) {
        const [a, b, c, d] = [at(row, i), at(next, i), at(next, i + 1), at(row, i + 1)];
        const [u0, u1, v0, v1] = [i / sides, (i + 1) / sides, row / last, (row + 1) / last];
        if (a === d) faces.face([a, b, c], groups[row], FINISH.main, [(u0 + u1) / 2, v0, u0, v1, u1, v1]);
        else if (b === c) faces.face([a, b, d], groups[row], FINISH.main, [u0, v0, (u0 + u1) / 2, v1, u1, v0]);
        else faces.face([a, b, c, d], groups[row], FINISH.main, [u0, v0, u0, v1, u1, v1, u1, v0]);
      }
    }
    return faces.finish(total);
  });
  const positions = new Float32Array(total * 3);
  let o = 0;
  for (let row = Number(low); row < n - Number(high); row++)
    for (let i = 0; i < sides; i++) {
      const a = (2 * Math.PI * i) / sides;
      positions[o++] = profile[row].r * Math.cos(a);
      positions[o++] = profile[row].y;
      positions[o++] = profile[row].r * Math.sin(a);
    }
  if (low) positions.set([0, profile[0].y, 0], o);
  if (high) positions.set([0, profile[n - 1].y, 0], o + 3 * Number(low));
  return meshOf(connectivity, positions);
}

/** Points along a straight part of a profile, without the last. */
export function straight(from: ProfilePoint, to: ProfilePoint, parts: number, group = 0): ProfilePoint[] {
  return Array.from({ length: parts }, (_, k) => ({
    r: from.r + ((to.r - from.r) * k) / parts,
    y: from.y + ((to.y - from.y) * k) / parts,
    group,
  }));
}

/**
 * Points along an arc of a profile about (r, y), from one angle to another (radians, 0 outwards, ¼ turn up), without
 * the last.
 */
export function arc(
  r: number,
  y: number,
  radius: number,
  from: number,
  to: number,
  parts: number,
  group = 0,
): ProfilePoint[] {
  return Array.from({ length: parts }, (_, k) => {
    const a = from + ((to - from) * k) / parts;
    return { r: Math.max(0, r + radius * Math.cos(a)), y: y + radius * Math.sin(a), group };
  });
}
