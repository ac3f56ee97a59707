import { keyList, number } from '../../declare/params';
import type { KeyDoc } from '../keys/key';
import { trackOf, type Track } from '../keys/track';
import { closedCourse, defineMotion } from '../motion';
import { splitTime } from '../phase';

/** Keys on the circle of the loop. There is no end key, so none can be set on the wrong frame. */
export const keys = defineMotion({
  kind: 'keys',
  title: 'Keys',
  help: 'Goes from key to key round the loop; after the last comes the first again.',
  ofValue: { adds: 'change' },
  params: {
    adds: number('Adds per loop', 0, 'What the value gains each time round: 360° is one whole turn.', { moves: false }),
    keys: keyList('Keys', 'Values at places of the loop, and the way from each to the next.'),
  },
  start: (value, param) =>
    // An angle starts out as a whole turn at even speed: one key that gains 360° a loop.
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

/** A second key a quarter of the scrub range away, to the side that has more room. */
function otherValue(value: number, param: { soft: readonly [number, number]; integer: boolean }): number {
  const reach = (param.soft[1] - param.soft[0]) / 4;
  const to = value + reach <= param.soft[1] ? value + reach : value - reach;
  return param.integer ? Math.round(to) : Number(to.toPrecision(6));
}

/**
 * Whether there is a corner as sharp as that at the seam somewhere else in the loop. What travels on
 * is expected to do so evenly, so this is asked only of what comes back.
 */
function cornersElsewhere(list: readonly KeyDoc[], at: Track['at']): boolean {
  const corner = (p: number) => Math.abs(at(p).slope - at((p + 1 - 1e-9) % 1).slope);
  const seam = corner(0);
  return (
    seam > 0 && list.some((k, i) => (k.at > 0 && corner(k.at) >= 0.5 * seam) || (i > 0 && k.at === list[i - 1].at))
  );
}
