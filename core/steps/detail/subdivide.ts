import { number } from '../../declare/params';
import { catmullClark, facesAfter } from '../../shape/catmull-clark';
import { checkFaces, defineStep } from '../step';

/** Catmull–Clark subdivision with a level for each detail. */
export const subdivide = defineStep({
  kind: 'subdivide',
  title: 'Subdivide',
  help: 'Splits every face and rounds the form (Catmull–Clark).',
  icon: 'subdivide',
  group: 'detail',
  hasDetail: true,
  params: {
    draftLevel: number('Draft level', 1, 'Rounds of splitting while you work.', { min: 0, max: 7, soft: [0, 4], integer: true }),
    finalLevel: number('Final level', 2, 'Rounds of splitting when delivering.', { min: 0, max: 7, soft: [0, 4], integer: true }),
  },
  summary: (v) => `draft ${v.draftLevel} · final ${v.finalLevel}`,
  evaluate(v, input, { detail }) {
    const levels = detail === 'draft' ? v.draftLevel : v.finalLevel;
    checkFaces(facesAfter(input.connectivity, levels), `Lower the ${detail} level, now ${levels}.`);
    return catmullClark(input, levels);
  },
});
