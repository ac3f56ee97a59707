import type { NumberValue, StoredValue } from '../declare/params';
import {
  addressKey,
  isColourPlace,
  ownerKey,
  ownersOf,
  valuesOf,
  type ColourPlace,
  type NumberPlace,
  type Owner,
} from '../piece/addresses';
import { circleThrough, describeCircle, growthOf, linkPiece, MOST_FOLLOWED, sourcesOf } from '../piece/link';
import type { Piece } from '../piece/piece';
import { evaluateValues } from '../time/values';
import { stepKind } from '../steps/index';
import { colourCourse } from '../time/colours/index';
import { MAX_FRAMES } from '../time/loop';
import type { MotionDoc } from '../time/motion';
import { formatRational, isWhole, lcm, toRational, type Rational } from '../maths/rational';
import { closes, courseOf, evaluateNumber, isMoving } from '../time/value';
import { readable, type Finding, type Repair } from './finding';
import { turnWords, wholeTurnsNear } from '../time/closing';
import { closingMotions, evenSpeed, loopsToClose, smoothed } from './repairs';
import { loopSpeeds, seamSpeeds } from './speeds';

export interface Proof {
  /** Whether every value at f = N is where it was at f = 0. */
  readonly closed: boolean;
  /** Most visible first. */
  readonly findings: readonly Finding[];
  /** How many values move. */
  readonly moving: number;
  /** Frames after which the piece really repeats, a multiple of N; null if never. */
  readonly truePeriod: number | null;
}

const WHOLE: Rational = { num: 1, den: 1 };
const NO_SPEED = { speedBefore: 0, speedAfter: 0, speedMean: 0 };

/** Least change of speed at the seam that is reported, relative to the largest speed. */
const CHANGE = 0.02;
/** A travelling value pauses below this share of its mean speed. */
const PAUSE = 0.12;

type Place = NumberPlace | ColourPlace;
type About = Pick<Finding, 'key' | 'owner' | 'address' | 'title' | 'place' | 'colour' | 'unit'>;

/**
 * Proves from motions alone whether a piece closes, without evaluating shapes: turns in rational arithmetic, then
 * speeds on both sides of the seam.
 */
export function proveSeam(piece: Piece): Proof {
  const { frames } = piece.loop;
  const plain = valuesOf(piece);
  const ready = linkPiece(piece);
  const linked = ready === piece ? plain : valuesOf(ready);
  let known: Map<string, Place> | null = null;
  const index = () => (known ??= new Map(plain.map((p) => [addressKey(p.address), p])));
  const gapKeys = new Set<string>();
  const findings: { finding: Finding; rank: number }[] = [];
  let moving = 0;
  let loops: number | null = 1;
  const longer = (n: number | null) => {
    loops = n === null || loops === null ? null : lcm(loops, n);
    if (loops !== null && loops * frames > Number.MAX_SAFE_INTEGER / 4) loops = null;
  };
  plain.forEach((place, i) => {
    const value = linked[i].value;
    if (!isMoving(value) && !(place.param.type === 'number' && place.param.counts)) return;
    if (!isMoving(value)) {
      if (Number.isInteger(value)) return;
      const count = countFinding(place, aboutOf(place), frames);
      if (!count) return;
      findings.push({ finding: count, rank: 10 });
      longer(count.turns.den);
      return;
    }
    moving++;
    const follows = value.motion === 'follow' || value.layers !== undefined;
    const lost = follows ? lostFinding(piece, place, index, aboutOf(place)) : null;
    if (lost) findings.push({ finding: lost, rank: 0.5 });
    if (isColourPlace(place)) {
      const { turns } = colourCourse(value, frames);
      if (isWhole(turns)) return;
      longer(turns.den);
      findings.push({ finding: colourGap(place, aboutOf(place), turns, frames), rank: 5 });
      return;
    }
    const course = courseOf(value, frames);
    if (flat(value)) return;
    if (!closes(course, place.param.cyclic)) {
      longer(loopsToClose(value, place.param.cyclic, frames));
      const finding = gapFinding(place, value, aboutOf(place), frames);
      gapKeys.add(finding.key);
      findings.push({ finding, rank: 10 + finding.miss / (place.param.soft[1] - place.param.soft[0]) });
      return;
    }
    if (value.seamMeant) return;
    const finding = speedFinding(place, value, frames);
    if (finding)
      findings.push({
        finding,
        rank: 1 + Math.min(1, Math.abs(finding.speedAfter - finding.speedBefore) / (finding.speedMean || 1)),
      });
  });
  for (const { finding, loops: own } of stepFindings(piece)) {
    findings.push({ finding, rank: 9 });
    longer(own !== null && own * frames <= MAX_FRAMES ? own : null);
  }

  // A follower repeats its source: its own gap would say the same again, and cannot be repaired here.
  const shown = findings.filter(({ finding }) => {
    if (finding.kind === 'lost' || !finding.address) return true;
    const value = index().get(finding.key)?.value;
    return !(isMoving(value) && value.motion === 'follow' && gapKeys.has(value.of as string));
  });
  shown.sort((a, b) => b.rank - a.rank);
  const all = shown.map((s) => s.finding);
  return {
    closed: !all.some((f) => f.kind === 'gap'),
    findings: all,
    moving,
    truePeriod: loops === null ? null : frames * loops,
  };
}

function aboutOf(place: Place): About {
  return {
    key: addressKey(place.address),
    owner: place.address.owner,
    address: place.address,
    title: place.title,
    place: place.place,
    colour: place.colour,
    unit: isColourPlace(place) ? '' : place.param.unit,
  };
}

/** Whether a motion has no amplitude, so that nothing of it is visible. */
function flat(value: MotionDoc): boolean {
  return (value.motion === 'wave' || value.motion === 'wander') && value.low === value.high && !value.layers?.length;
}

function lengthening(loops: number | null, frames: number): Repair[] {
  if (loops === null || loops < 2 || loops > 12 || loops * frames > MAX_FRAMES) return [];
  return [
    { words: `Loop of ${loops * frames} frames`, help: 'Everything goes on at its speed, for longer', lengthen: loops },
  ];
}

function countFinding(place: Place, about: About, frames: number): Finding | null {
  if (isColourPlace(place) || place.param.type !== 'number' || !place.param.counts || Number.isInteger(place.value))
    return null;
  const turns = toRational(place.value as number);
  const set = wholeTurnsNear(turns).map((k): Repair => ({
    words: turnWords(k),
    set: [{ address: place.address, value: k }],
  }));
  return {
    ...about,
    kind: 'gap',
    turns,
    by: 'proof',
    from: 0,
    to: place.value as number,
    miss: Math.abs((place.value as number) - Math.round(place.value as number)),
    ...NO_SPEED,
    words: `${readable(place.value as number)} a loop does not close; a loop needs a whole number.`,
    repairs: [...set, ...lengthening(turns.den, frames)],
  };
}

function lostFinding(piece: Piece, place: Place, index: () => Map<string, Place>, about: About): Finding | null {
  const wrong = sourcesOf(place.value).map((key) => {
    if (!index().has(key)) return 'It follows a value that is no longer there.';
    const circle = circleThrough(piece, about.key);
    if (circle) return `It follows itself: ${describeCircle(circle)}.`;
    return growthOf(piece)(key) > MOST_FOLLOWED
      ? `It follows values that follow others, more than ${MOST_FOLLOWED} motions in all; let it follow fewer.`
      : null;
  });
  const unset =
    isMoving(place.value) && place.value.motion === 'follow' && place.value.of === ''
      ? 'It follows nothing yet.'
      : null;
  const words = wrong.find((w) => w !== null) ?? unset;
  if (!words) return null;
  const stands =
    isMoving(place.value) && place.value.motion === 'follow'
      ? place.value.otherwise
      : isColourPlace(place)
        ? place.param.default
        : 0;
  return {
    ...about,
    kind: 'lost',
    turns: WHOLE,
    by: 'proof',
    from: 0,
    to: 0,
    miss: 0,
    ...NO_SPEED,
    words: `${words} It stands at ${String(stands)}${about.unit ? ` ${about.unit}` : ''}.`,
    repairs: [{ words: 'Stand still', set: [{ address: place.address, value: stands as StoredValue }] }],
  };
}

function colourGap(place: ColourPlace, about: About, turns: Rational, frames: number): Finding {
  const value = place.value as MotionDoc;
  const set =
    value.motion === 'follow'
      ? []
      : wholeTurnsNear(turns).map((k): Repair => ({
          words: turnWords(k),
          set: [{ address: place.address, value: { ...value, turns: k } }],
        }));
  return {
    ...about,
    kind: 'gap',
    turns,
    by: 'proof',
    from: 0,
    to: 0,
    miss: 0,
    ...NO_SPEED,
    words: `Turns ${plainTurns(turns)} times; a loop needs whole turns.`,
    repairs: [...set, ...lengthening(turns.den, frames)],
  };
}

function plainTurns(turns: Rational): string {
  return isWhole(turns) ? formatRational(turns) : `${Number((turns.num / turns.den).toFixed(3))}`;
}

/** Gap of an angle the shorter way round; of any other value plainly. */
function missOf(from: number, to: number, cyclic: number | undefined): number {
  const d = Math.abs(to - from);
  if (!cyclic) return d;
  const r = d % cyclic;
  return Math.min(r, cyclic - r);
}

function gapFinding(place: NumberPlace, value: MotionDoc, about: About, frames: number): Finding {
  const { cyclic } = place.param;
  const unit = about.unit ? ` ${about.unit}` : '';
  const course = courseOf(value, frames);
  const from = evaluateNumber(value, { frame: 0, frames });
  const to = evaluateNumber(value, { frame: frames, frames });
  const speeds = seamSpeeds(value, frames);
  const miss = missOf(from, to, cyclic);
  // 1e-9 relative is far below what the eye or a file can hold.
  const meets = miss <= 1e-9 * Math.max(1, Math.abs(from));
  const start = course.open
    ? 'It never comes round'
    : course.adds !== 0
      ? `It gains ${readable(course.adds)}${unit} each ` +
        `${course.turns.den > 1 ? `${course.turns.den} loops` : 'loop'}${cyclic ? `; a whole turn is ${cyclic}${unit}` : ''}`
      : `Turns ${plainTurns(course.turns)} times; a loop needs whole turns`;
  const words = meets
    ? `${start}. It meets itself in place, but arrives at ${readable(speeds.before)}${unit} a frame and leaves ` +
      `at ${readable(speeds.after)}.`
    : `${start}. It starts at ${readable(from)}${unit} and arrives at ${readable(to)}${unit}.`;
  // Repairs are tried on linked motions and written to stored ones: sources stay addresses.
  const repairs = closingMotions(value, place.param, frames).map((c): Repair => ({
    words: c.words,
    ...(c.help ? { help: c.help } : {}),
    set: [{ address: place.address, value: unlinked(c.motion) }],
  }));
  const all = [...repairs, ...lengthening(loopsToClose(value, cyclic, frames), frames)];
  return {
    ...about,
    kind: 'gap',
    stored: place.value as MotionDoc,
    ...(value.seamMeant ? { meant: true } : {}),
    turns: course.turns,
    by: course.by,
    from,
    to,
    miss,
    speedBefore: speeds.before,
    speedAfter: speeds.after,
    speedMean: loopSpeeds(value, frames).mean,
    words: course.by === 'measure' ? `${words} (Measured, not proven.)` : words,
    // If no similar motion closes, it can stand still.
    repairs: all.length > 0 ? all : [{ words: 'Stand still', set: [{ address: place.address, value: from }] }],
  };
}

/** A motion without linked data. */
function unlinked(value: NumberValue): NumberValue {
  if (!isMoving(value)) return value;
  const { source: _source, place: _place, ...rest } = value;
  const out = rest as MotionDoc;
  return out.layers
    ? { ...out, layers: out.layers.map((l) => ({ ...l, motion: unlinked(l.motion) as MotionDoc })) }
    : out;
}

function speedFinding(place: NumberPlace, value: MotionDoc, frames: number): Finding | null {
  const course = courseOf(value, frames);
  if (course.sharp) return null;
  const s = seamSpeeds(value, frames);
  const from = evaluateNumber(value, { frame: 0, frames });
  const mayJump = Math.abs(s.jump) > 1e-6 * Math.max(1, Math.abs(from));
  // What is unchanged relative to the speeds at the seam is unchanged relative to the largest.
  const mayDiffer = Math.abs(s.after - s.before) > CHANGE * Math.max(Math.abs(s.after), Math.abs(s.before), 1e-12);
  if (!mayJump && !mayDiffer && course.adds === 0) return null;
  const loop = loopSpeeds(value, frames);
  const about = aboutOf(place);
  const unit = about.unit ? ` ${about.unit}` : '';
  const common = {
    ...about,
    turns: course.turns,
    by: course.by,
    from,
    to: evaluateNumber(value, { frame: frames, frames }),
    miss: 0,
    speedBefore: s.before,
    speedAfter: s.after,
    speedMean: loop.mean,
  };
  const stored = place.value as MotionDoc;
  const put = (words: string, motion: MotionDoc, help?: string): Repair => ({
    words,
    ...(help ? { help } : {}),
    set: [{ address: place.address, value: motion }],
  });
  const onlyKeys = stored.motion === 'keys' && !stored.layers?.length && !stored.timing;
  const jumps = mayJump && Math.abs(s.jump) > 0.05 * loop.mean;
  const differs = Math.abs(s.after - s.before) > CHANGE * Math.max(loop.largest, 1e-12);
  if (jumps || differs) {
    const keep = put(jumps ? 'Keep the jump' : 'Keep the change', { ...stored, seamMeant: true });
    const ease = put(
      'Rest at the seam',
      { ...stored, timing: { ...stored.timing, rest: Math.max(0.05, stored.timing?.rest ?? 0) } },
      'Slows down to the seam and starts from there',
    );
    const repairs = onlyKeys
      ? [
          put('Even speed', evenSpeed(stored), 'Keys spread so that it moves at one speed'),
          put('Smooth', smoothed(stored), 'One closed spline through the keys'),
        ]
      : [ease];
    const mends = (r: Repair) => {
      const after = r.set![0].value as MotionDoc;
      const t = { ...value, ...after } as MotionDoc;
      const [v, l] = [seamSpeeds(t, frames), loopSpeeds(t, frames)];
      return (
        closes(courseOf(t, frames), place.param.cyclic) &&
        (courseOf(t, frames).sharp ||
          (Math.abs(v.after - v.before) <= CHANGE * Math.max(l.largest, 1e-12) && Math.abs(v.jump) <= 0.05 * l.mean))
      );
    };
    const words = jumps
      ? `It jumps by ${readable(Math.abs(s.jump))}${unit} at the seam.`
      : `Meets itself in place, but arrives at ${readable(s.before)}${unit} a frame and leaves at ${readable(s.after)}.`;
    return { ...common, kind: 'speed', words, repairs: [...repairs.filter(mends), keep] };
  }
  if (course.adds === 0 || Math.abs(s.after) >= PAUSE * loop.mean) return null;
  const repairs = onlyKeys
    ? [put('Even speed', evenSpeed(stored), 'Keys spread so that it moves at one speed')]
    : stored.timing?.rest
      ? [put('Even speed', { ...stored, timing: { ...stored.timing, rest: 0 } })]
      : [];
  return {
    ...common,
    kind: 'pause',
    words:
      'Meets itself in place, but slows to rest at the seam: ' +
      `${readable(Math.abs(s.after) < 1e-3 * loop.largest ? 0 : Math.abs(s.after))} → ` +
      `${readable(loop.largest)}${unit} a frame in mid-loop.`,
    repairs: [...repairs, put('Keep the pause', { ...stored, seamMeant: true })],
  };
}

/** Steps that do not close by nature, and the loops after which they do. */
function stepFindings(piece: Piece): { finding: Finding; loops: number | null }[] {
  const clock = { frame: 0, frames: piece.loop.frames };
  return ownersOf(linkPiece(piece)).flatMap(
    ({ owner, params, item, title, place, ribbon }): { finding: Finding; loops: number | null }[] => {
      if (owner.type !== 'step') return [];
      if (!item.on) return [];
      const seam = stepKind(item.kind).seam?.(evaluateValues(params, item.values, clock), piece.loop.frames);
      if (!seam) return [];
      const repairs = seam.repairs.map((r): Repair => ({
        words: r.words,
        set: Object.entries(r.values).map(([param, value]) => ({ address: { owner: owner as Owner, param }, value })),
      }));
      return [
        {
          finding: {
            kind: 'gap',
            key: ownerKey(owner),
            owner,
            title,
            place,
            colour: ribbon?.colour,
            unit: '',
            turns: WHOLE,
            by: 'proof',
            from: 0,
            to: 0,
            miss: 0,
            ...NO_SPEED,
            words: seam.words,
            repairs,
          },
          loops: seam.loops ?? null,
        },
      ];
    },
  );
}
