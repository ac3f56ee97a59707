import { triangulated } from '../../shape/triangulated';
import { defineStep } from '../step';

/** Cuts every face into triangles. */
export const triangulate = defineStep({
  kind: 'triangulate',
  title: 'Triangulate',
  help: 'Cuts every face into triangles, quads along their shorter diagonal.',
  icon: 'triangulate',
  group: 'build',
  needs: 'faces',
  params: {},
  summary: () => 'all faces',
  evaluate: (_v, input) => triangulated(input),
});
