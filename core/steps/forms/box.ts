import { number, toggle, vector } from '../../declare/params';
import { ConnectivityBuilder, connectivityStore, meshOf } from '../../shape/builder';
import { FINISH, perConnectivity } from '../../shape/mesh';
import { brief, checkFaces, defineStep } from '../step';

const store = connectivityStore();
/** Integer grid coordinates of the vertices, 3 each, by connectivity key. */
const grids = new WeakMap<object, Uint32Array>();

const smoothed = perConnectivity((c) => ({ ...c, shadingGroups: undefined }));

/** A closed box; each side is a grid of quads and shades flat against its neighbours. */
export const box = defineStep({
  kind: 'box',
  title: 'Box',
  help: 'A block with a grid of faces on each side.',
  icon: 'box',
  group: 'form',
  params: {
    size: vector('Size', [1.4, 1.4, 1.4], 'Length of the edges along x, y and z.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
    rounding: number('Rounding', 0, 'Radius of its edges and corners.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 0.7],
    }),
    segments: number('Segments', 8, 'Faces along each edge.', {
      min: 1,
      max: 400,
      soft: [1, 48],
      integer: true,
      shownWhen: { param: 'uneven', is: [false] },
    }),
    uneven: toggle('Own counts', false, 'Sets the number of faces along x, y and z separately.', { more: true }),
    counts: vector('Segments', [8, 8, 8], 'Faces along x, y and z.', {
      min: 1,
      max: 400,
      soft: [1, 48],
      integer: true,
      shownWhen: { param: 'uneven', is: [true] },
      more: true,
    }),
  },
  // Edges, wires and bevels then show a box and not a grid.
  fresh: { segments: 1, counts: [1, 1, 1] },
  summary: (v) => `${v.size.map(brief).join(' × ')} m`,
  evaluate(v) {
    const n = v.uneven ? v.counts : ([v.segments, v.segments, v.segments] as const);
    checkFaces(2 * (n[0] * n[1] + n[1] * n[2] + n[2] * n[0]), 'Use fewer segments.');
    const connectivity = store(n.join(), () => {
      const ids = new Map<number, number>();
      const cells: number[] = [];
      const vertex = (p: number[]): number => {
        const key = (p[0] * (n[1] + 1) + p[1]) * (n[2] + 1) + p[2];
        let id = ids.get(key);
        if (id === undefined) {
          id = ids.size;
          ids.set(key, id);
          cells.push(...p);
        }
        return id;
      };
      const faces = new ConnectivityBuilder();
      for (let axis = 0; axis < 3; axis++)
        for (const end of [0, n[axis]]) {
          const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
          for (let i = 0; i < n[u]; i++)
            for (let j = 0; j < n[w]; j++) {
              const at = (du: number, dw: number) => {
                const p = [0, 0, 0];
                p[axis] = end;
                p[u] = i + du;
                p[w] = j + dw;
                return vertex(p);
              };
              const quad = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
              // Texture coordinates stand upright on the sides and are read from the front above and below; those that
              // would be mirrored are flipped.
              const uv = [
                [i, j],
                [i + 1, j],
                [i + 1, j + 1],
                [i, j + 1],
              ].map(([du, dw]) => {
                const [a, b] = [du / n[u], dw / n[w]];
                return axis === 0 ? [b, a] : axis === 1 ? [b, 1 - a] : [a, b];
              });
              if (end === 0) faces.face(quad.reverse(), axis * 2, FINISH.main, uv.reverse().flat());
              else faces.face(quad, axis * 2 + 1, FINISH.main, uv.flat());
            }
        }
      const made = faces.finish(ids.size);
      grids.set(made, Uint32Array.from(cells));
      return made;
    });
    const cells = grids.get(connectivity)!;
    const positions = Float32Array.from(cells, (c, i) => (c / n[i % 3] - 0.5) * v.size[i % 3]);
    const radius = Math.min(v.rounding, ...v.size.map((s) => s / 2));
    if (radius === 0) return meshOf(connectivity, positions);
    for (let i = 0; i < positions.length; i += 3) {
      // From the nearest point of the box shrunk by the radius, outwards by the radius.
      const core = [0, 1, 2].map((k) =>
        Math.max(radius - v.size[k] / 2, Math.min(v.size[k] / 2 - radius, positions[i + k])),
      );
      const out = core.map((c, k) => positions[i + k] - c);
      const length = Math.hypot(...out) || 1;
      for (let k = 0; k < 3; k++) positions[i + k] = core[k] + (radius * out[k]) / length;
    }
    return meshOf(smoothed(connectivity), positions);
  },
});
