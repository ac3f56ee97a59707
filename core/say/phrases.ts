/** Words that join others and say nothing by themselves. */
const JOINING = new Set(
  'a an the of with and in on at as by to about around along per each its it is be make set let add new give put use'.split(
    ' ',
  ),
);

export const joiningWords: readonly string[] = [...JOINING].filter((w) => w.length > 3);

export const isJoining = (word: string): boolean => JOINING.has(word.toLowerCase());

/** Most words of a phrase. */
export const LONGEST = 4;

/** Words by which a value is called beside its title; the first of the names that a kind declares is meant. */
export const VALUE_WORDS: Readonly<Record<string, readonly string[]>> = {
  every: ['way', 'spacing', 'gap', 'every', 'distance'],
  apart: ['way', 'spacing', 'gap', 'distance'],
  spaced: ['way', 'spacing', 'gap', 'distance'],
  wide: ['width'],
  high: ['height'],
  tall: ['height'],
  deep: ['depth'],
  long: ['length'],
  thick: ['thickness'],
  big: ['size'],
  intensity: ['strength'],
  power: ['strength'],
  brightness: ['strength'],
  bright: ['strength'],
  copies: ['count'],
  color: ['colour'],
  coloured: ['colour'],
  rotate: ['turn'],
  rotation: ['turn'],
  move: ['shift'],
  position: ['shift', 'place'],
  scale: ['size', 'scale'],
  ior: ['ior'],
  opacity: ['alpha'],
  clear: ['transmission'],
};

/** Words for how often a motion goes round. */
export const TIMES: Readonly<Record<string, number>> = { once: 1, twice: 2, thrice: 3 };

/** Where a lamp stands, in metres from what it lights, and the same as round and above. */
export const DIRECTIONS: Readonly<
  Record<
    string,
    { readonly place: readonly [number, number, number]; readonly azimuth?: number; readonly elevation: number }
  >
> = {
  above: { place: [0, 4, 0.5], elevation: 80 },
  top: { place: [0, 4, 0.5], elevation: 80 },
  below: { place: [0, -4, 0.5], elevation: -80 },
  left: { place: [-4, 1.5, 1], azimuth: -75, elevation: 20 },
  right: { place: [4, 1.5, 1], azimuth: 75, elevation: 20 },
  front: { place: [0, 1.5, 4], azimuth: 0, elevation: 20 },
  behind: { place: [0, 1.5, -4], azimuth: 180, elevation: 20 },
  back: { place: [0, 1.5, -4], azimuth: 180, elevation: 20 },
};
