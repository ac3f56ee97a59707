import { number, seed } from '../../declare/params';
import { apartConnectivity } from '../../shape/apart';
import { faceMiddle, faceNormal } from '../../shape/faces';
import { randomSource } from '../../maths/random';
import { regionMoves, regionParams, regionWeights } from '../deform/region';
import { brief, defineStep } from '../step';

/** Separates the faces and moves each along its normal. */
export const burst = defineStep({
  kind: 'burst',
  title: 'Burst',
  help: 'Takes the faces apart and sends each out along its normal.',
  icon: 'burst',
  group: 'build',
  needs: 'faces',
  params: {
    distance: number('Distance', 0.15, 'How far they go.', { unit: 'm', min: -1000, max: 1000, soft: [-0.5, 2] }),
    variety: number('Variety', 60, 'How much less far some of them go.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    size: number('Face size', 85, 'Size of each face about its middle.', {
      unit: '%',
      min: 0,
      max: 400,
      soft: [0, 120],
      step: 1,
    }),
    turn: number('Turn', 0, 'Turns each face about its normal.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    seed: seed('Seed', 1, 'A different number gives other faces go far.', 'chance'),
    ...regionParams,
  },
  summary: (v) => `${brief(v.distance)} m, faces at ${brief(v.size)} %`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const c = input.connectivity;
    const p = input.positions;
    const random = randomSource(v.seed * 71 + 3);
    const out = new Float32Array(c.corners.length * 3);
    const weights = regionWeights(v, input, context);
    const [cos, sin] = [Math.cos((v.turn * Math.PI) / 180), Math.sin((v.turn * Math.PI) / 180)];
    for (let f = 0; f + 1 < c.faceStart.length; f++) {
      const m = faceMiddle(c, p, f);
      const n = faceNormal(c, p, f);
      const l = Math.hypot(...n) || 1;
      const [nx, ny, nz] = [n[0] / l, n[1] / l, n[2] / l];
      let w = 1;
      if (weights) {
        w = 0;
        for (let i = c.faceStart[f]; i < c.faceStart[f + 1]; i++)
          w += weights[c.corners[i]] / (c.faceStart[f + 1] - c.faceStart[f]);
      }
      const far = w * v.distance * (1 - (v.variety / 100) * random());
      const k = 1 + w * (v.size / 100 - 1);
      for (let i = c.faceStart[f]; i < c.faceStart[f + 1]; i++) {
        const a = 3 * c.corners[i];
        const [x, y, z] = [(p[a] - m[0]) * k, (p[a + 1] - m[1]) * k, (p[a + 2] - m[2]) * k];
        // Rodrigues' rotation about the normal, to which the face is perpendicular.
        const along = nx * x + ny * y + nz * z;
        out[3 * i] = m[0] + x * cos + (ny * z - nz * y) * sin + nx * along * (1 - cos) + nx * far;
        out[3 * i + 1] = m[1] + y * cos + (nz * x - nx * z) * sin + ny * along * (1 - cos) + ny * far;
        out[3 * i + 2] = m[2] + z * cos + (nx * y - ny * x) * sin + nz * along * (1 - cos) + nz * far;
      }
    }
    return { connectivity: apartConnectivity(c), positions: out };
  },
});
