import { number } from '../../declare/params';
import { connectivityStore, meshOf } from '../../shape/builder';
import { gridUv } from '../../shape/attributes';
import { uniformConnectivity } from '../../shape/mesh';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

const store = connectivityStore();

/** A torus lying on the ground plane, axis y; quads in both directions. */
export const torus = defineStep({
  kind: 'torus',
  title: 'Torus',
  help: 'A ring of round pipe.',
  icon: 'torus',
  group: 'form',
  params: {
    ringRadius: number('Ring radius', 1, 'From the centre of the ring to the middle of the pipe.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
    }),
    pipeRadius: number('Pipe radius', 0.4, 'Half the thickness of the pipe.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 2],
    }),
    ringSegments: number('Ring faces', 80, 'Faces round the ring.', {
      min: 3,
      max: 2000,
      soft: [3, 240],
      integer: true,
    }),
    pipeSegments: number('Pipe faces', 32, 'Faces round the pipe.', {
      min: 3,
      max: 2000,
      soft: [3, 120],
      integer: true,
    }),
    stretch,
  },
  summary: (v) => `${brief(v.ringRadius)} × ${brief(v.pipeRadius)} m · ${v.ringSegments} × ${v.pipeSegments}`,
  evaluate(v) {
    const [m, n] = [v.ringSegments, v.pipeSegments];
    checkFaces(m * n, 'Use fewer segments.');
    const connectivity = store(`${m}/${n}`, () => {
      const corners = new Uint32Array(m * n * 4);
      let k = 0;
      for (let i = 0; i < m; i++)
        for (let j = 0; j < n; j++) {
          const i1 = (i + 1) % m;
          const j1 = (j + 1) % n;
          corners.set([i * n + j, i * n + j1, i1 * n + j1, i1 * n + j], k);
          k += 4;
        }
      return uniformConnectivity(m * n, 4, corners, { uv: gridUv(m, n) });
    });
    const positions = new Float32Array(m * n * 3);
    for (let i = 0; i < m; i++) {
      const a = (2 * Math.PI * i) / m;
      const [ca, sa] = [Math.cos(a), Math.sin(a)];
      for (let j = 0; j < n; j++) {
        const b = (2 * Math.PI * j) / n;
        const r = v.ringRadius + v.pipeRadius * Math.cos(b);
        positions.set([r * ca, v.pipeRadius * Math.sin(b), r * sa], (i * n + j) * 3);
      }
    }
    return stretched(meshOf(connectivity, positions), v.stretch);
  },
});
