import { shownJson } from '../declare/json-words';

/** A fault found in a value: where, and what to do about it. */
export interface Fault {
  readonly path: (string | number)[];
  readonly message: string;
}

export function fault(message: string, ...path: (string | number)[]): Fault {
  return { path, message };
}

/** A value as it stands in a message. */
export function show(x: unknown): string {
  if (x === undefined) return 'Nothing';
  return shownJson(x, 40);
}

/** Faults of a part, with their path prefixed. */
export function within(faults: readonly Fault[], ...path: (string | number)[]): Fault[] {
  return faults.map((f) => ({ path: [...path, ...f.path], message: f.message }));
}

export function isRecord(x: unknown): x is Record<string, unknown> {
  return typeof x === 'object' && x !== null && !Array.isArray(x);
}
