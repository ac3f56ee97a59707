import { keyList, number } from '../../declare/params';
import { sortKeys, type KeyDoc } from '../keys/key';
import { trackOf, type Track } from '../keys/track';
import { closedGains, GAIN_HELP, gainWords, turnWords } from '../closing';
import { closedCourse, defineMotion, type MotionDoc } from '../motion';
import { splitTime } from '../phase';

/** Keys on the circle of the loop. There is no end key that could be set on the wrong frame. */
export const keys = defineMotion({
  kind: 'keys',
  title: 'Keys',
  help: 'Moves from key to key round the loop; after the last comes the first again.',
  ofValue: { adds: 'change' },
  words: (s) => {
    const n = (s.keys as readonly KeyDoc[]).length;
    return `${n} ${n === 1 ? 'key' : 'keys'}`;
  },
  closing: (motion, param) =>
    closedGains(motion.adds as number, param.cyclic).flatMap((gain) => [
      { words: gainWords(gain, param), help: GAIN_HELP, motion: { ...motion, adds: gain } },
      ...(gain !== 0 && (motion.keys as readonly KeyDoc[]).length > 1
        ? [
            {
              words: `Stretch to ${turnWords(gain / (param.cyclic ?? 1))}`,
              help: 'Stretches all keys in proportion',
              motion: stretched(motion, gain),
            },
          ]
        : []),
    ]),
  params: {
    adds: number('Adds per loop', 0, 'What the value gains each time round: 360° is one whole turn.', { moves: false }),
    keys: keyList('Keys', 'Values at places of the loop, and the way from each to the next.'),
  },
  start: (value, param) =>
    // An angle starts as one even turn: a single key that gains 360° per loop.
    param.cyclic
      ? { adds: param.cyclic, keys: [{ at: 0, value, to: 'linear' }] }
      : {
          adds: 0,
          keys: [
            { at: 0, value, to: 'smooth' },
            { at: 0.5, value: otherValue(value, param), to: 'smooth' },
          ],
        },
  prepare(s) {
    const track = trackOf(s.keys, s.adds);
    return {
      course: {
        ...closedCourse(),
        adds: s.adds,
        sharp: s.keys.some((k) => k.to === 'hold') || (s.adds === 0 && cornersElsewhere(s.keys, track.at)),
      },
      base: (clock) => track.at(splitTime(clock).frame / clock.frames).value,
      speed: (clock) => track.at(splitTime(clock).frame / clock.frames).slope / clock.frames,
    };
  },
});

/** Value of a second key: a quarter of the scrub range away, on the roomier side. */
function otherValue(value: number, param: { soft: readonly [number, number]; integer: boolean }): number {
  const reach = (param.soft[1] - param.soft[0]) / 4;
  const to = value + reach <= param.soft[1] ? value + reach : value - reach;
  return param.integer ? Math.round(to) : Number(to.toPrecision(6));
}

/**
 * Whether the loop has a corner elsewhere as sharp as that at the seam. Asked only of what returns: a steady gain is
 * expected to be even.
 */
function cornersElsewhere(list: readonly KeyDoc[], at: Track['at']): boolean {
  const corner = (p: number) => Math.abs(at(p).slope - at((p + 1 - 1e-9) % 1).slope);
  const seam = corner(0);
  return (
    seam > 0 && list.some((k, i) => (k.at > 0 && corner(k.at) >= 0.5 * seam) || (i > 0 && k.at === list[i - 1].at))
  );
}

/** Values scaled about the first so that the total gain becomes `gain`. */
function stretched(motion: MotionDoc, gain: number): MotionDoc {
  const adds = motion.adds as number;
  const keys = sortKeys(motion.keys as readonly KeyDoc[]);
  const factor = gain / adds;
  const first = keys[0].value;
  const scale = (t: readonly [number, number] | undefined) => t && ([t[0], t[1] * factor] as [number, number]);
  return {
    ...motion,
    adds: gain,
    keys: keys.map((k) => ({
      ...k,
      value: first + (k.value - first) * factor,
      ...(k.in ? { in: scale(k.in) } : {}),
      ...(k.out ? { out: scale(k.out) } : {}),
    })),
  };
}
