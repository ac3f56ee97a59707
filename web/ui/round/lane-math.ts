/** Seams between two moments: whole loops. */
export function seamsBetween(from: number, to: number): number[] {
  const out: number[] = [];
  for (let k = Math.ceil(from - 1e-9); k <= to + 1e-9; k++) out.push(k + 0);
  return out;
}

/** The loop that is shown at full strength. */
export function mainPart(from: number, span: number): [number, number] {
  const centre = from + span / 2;
  return span >= 1 ? [centre - 0.5, centre + 0.5] : [from, from + span];
}

/** Additions that make lane names unique: the ribbon, and a number if that is not enough. */
export function toldApart(
  lanes: readonly { readonly title: string; readonly place: string }[],
): (string | undefined)[] {
  const count = (of: (l: { title: string; place: string }) => string) => {
    const seen = new Map<string, number>();
    for (const l of lanes) seen.set(of(l), (seen.get(of(l)) ?? 0) + 1);
    return seen;
  };
  const both = (l: { title: string; place: string }) => `${l.title}/${l.place}`;
  const [titles, whole] = [count((l) => l.title), count(both)];
  const numbers = new Map<string, number>();
  return lanes.map((l) => {
    if (titles.get(l.title) === 1) return undefined;
    if (whole.get(both(l)) === 1) return l.place;
    const n = (numbers.get(both(l)) ?? 0) + 1;
    numbers.set(both(l), n);
    return `${l.place} ${n}`;
  });
}
