import { choice, number } from '../../declare/params';
import { catmullClark, facesAfter } from '../../shape/catmull-clark';
import { loopSubdivision } from '../../shape/loop-subdivision';
import { plainSplit } from '../../shape/plain-split';
import { edgesSharperThan } from '../../shape/sharp';
import { triangulated } from '../../shape/triangulated';
import { checkFaces, defineStep } from '../step';

/** Subdivision, with a level for draft and one for final detail. */
export const subdivide = defineStep({
  kind: 'subdivide',
  title: 'Subdivide',
  help: 'Splits every face and rounds the form (Catmull–Clark or Loop), with creases where it is sharp, or splits it only.',
  icon: 'subdivide',
  group: 'detail',
  needs: 'faces',
  reads: { detail: true },
  params: {
    draftLevel: number('Draft level', 1, 'Rounds of splitting while you work.', {
      min: 0,
      max: 7,
      soft: [0, 4],
      integer: true,
    }),
    finalLevel: number('Final level', 2, 'Rounds of splitting when delivering.', {
      min: 0,
      max: 7,
      soft: [0, 4],
      integer: true,
    }),
    scheme: choice(
      'Scheme',
      'catmull-clark',
      [
        { value: 'catmull-clark', title: 'Catmull–Clark' },
        { value: 'loop', title: 'Loop' },
        { value: 'plain', title: 'Split only' },
      ],
      'Catmull–Clark makes quads, Loop triangles; splitting only leaves the form as it is.',
      { more: true },
    ),
    crease: number(
      'Crease',
      0,
      'How many rounds long sharp edges stay sharp; between whole numbers they are part round.',
      { min: 0, max: 10, soft: [0, 4], step: 0.1, more: true, shownWhen: { param: 'scheme', is: ['catmull-clark'] } },
    ),
    angle: number('Crease angle', 40, 'Edges where faces meet at more than this are sharp.', {
      unit: '°',
      min: 0,
      max: 180,
      soft: [0, 180],
      step: 1,
      more: true,
      shownWhen: { param: 'scheme', is: ['catmull-clark'] },
    }),
  },
  summary: (v) => `draft ${v.draftLevel} · final ${v.finalLevel}`,
  evaluate(v, input, { detail }) {
    const levels = detail === 'draft' ? v.draftLevel : v.finalLevel;
    if (levels === 0) return input;
    const faces =
      v.scheme === 'loop'
        ? (input.connectivity.corners.length - 2 * (input.connectivity.faceStart.length - 1)) * 4 ** levels
        : facesAfter(input.connectivity, levels);
    checkFaces(faces, `Lower the ${detail} level, now ${levels}.`);
    if (v.scheme === 'plain') return plainSplit(input, levels);
    if (v.scheme === 'loop') return loopSubdivision(triangulated(input), levels, true);
    const sharp = v.crease > 0 ? Float32Array.from(edgesSharperThan(input, v.angle), (s) => s * v.crease) : null;
    return catmullClark(input, levels, sharp?.some((s) => s > 0) ? sharp : null);
  },
});
