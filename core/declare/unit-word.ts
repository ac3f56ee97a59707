const ONE: Readonly<Record<string, string>> = { turns: 'turn', frames: 'frame', loops: 'loop', copies: 'copy' };

/** A unit as it is said of a number: 1 turn, 2 turns. */
export const unitWord = (unit: string, value: number): string => (Math.abs(value) === 1 ? (ONE[unit] ?? unit) : unit);
