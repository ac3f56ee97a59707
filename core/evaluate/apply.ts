import { carry, withSources } from '../copies/carry';
import { facesShown, flattened } from '../copies/copies';
import type { Evaluated, Params } from '../declare/params';
import type { Mesh } from '../shape/mesh';
import { applyStep, checkFaces, copiesAsOf, type CopiesAs, type StepContext, type StepKind } from '../steps/step';

/** Copies as one shape with real faces. Throws StepProblem if those would be too many. */
export function asOne(mesh: Mesh, remedy: string): Mesh {
  if (mesh.copies) checkFaces(facesShown(mesh), remedy);
  return flattened(mesh);
}

/**
 * Applies a step to a shape that may have copies: they are moved as bodies, or each source is changed, or they are
 * merged first.
 *
 * @param each changes one source, and may use a cached result
 */
export function applyToCopies(
  kind: StepKind,
  values: Evaluated<Params>,
  mesh: Mesh,
  context: StepContext,
  chosen: CopiesAs | undefined,
  each: (source: Mesh) => Mesh,
): Mesh {
  const as = mesh.copies ? copiesAsOf(kind, chosen) : null;
  if (as === null) return applyStep(kind, values, mesh, context);
  if (as === 'whole') return carry(mesh, (probe) => applyStep(kind, values, probe, context), kind.carries ?? 'turn');
  if (as === 'each') return withSources(mesh.copies!, mesh.copies!.sources.map(each));
  return applyStep(
    kind,
    values,
    asOne(mesh, `Use fewer copies or simpler ones, or let ${kind.title} work on each copy.`),
    context,
  );
}
