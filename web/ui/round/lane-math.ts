/** Whole loops, and so seams, between two moments. */
export function seamsBetween(from: number, to: number): number[] {
  const out: number[] = [];
  for (let k = Math.ceil(from - 1e-9); k <= to + 1e-9; k++) out.push(k + 0);
  return out;
}

/** The one loop that is shown in full strength. */
export function mainPart(from: number, span: number): [number, number] {
  const centre = from + span / 2;
  return span >= 1 ? [centre - 0.5, centre + 0.5] : [from, from + span];
}
