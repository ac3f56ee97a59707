import { axisAngle, IDENTITY, moved, multiply, rotate, type Quaternion } from '../../maths/quaternion';
import type { Vec3 } from '../../maths/vec3';
import { convexHull, FACET, rollAlong, type Corner } from './rolling';

/** The pose of a body: rotated about the origin, then shifted. */
export interface Placed {
  readonly turn: Quaternion;
  readonly shift: Vec3;
}

/** A path round a regular polygon: the first side towards `heading` (x and z), each further one turned to the left. */
export interface Way {
  readonly corners: number;
  /** Steps of the body along each side of the path. */
  readonly along: number;
  readonly heading: readonly [number, number];
}

/** How far an edge may be from perpendicular to the heading for a body to roll over it, in radians: one degree. */
const SQUARE = Math.PI / 180;
/** After so many rounds a body that never returns to its pose is taken to begin again. */
const MOST_ROUNDS = 48;

/**
 * A body that rolls round a polygon, edge after edge. At a corner of the path, if one of the edges that it rests on is
 * perpendicular to the new heading, it rolls over that edge; otherwise it turns on the spot.
 *
 * @param positions of the body, 3 numbers per point
 * @param round whole rounds completed; negative for those before the first
 * @param share fraction of the next round, 0…1
 * @param gone progress of a step at a fraction of its time, both 0…1
 * @throws StepProblem if the outline has no sides to roll over
 */
export function roundAt(
  positions: Float32Array,
  way: Way,
  round: number,
  share: number,
  gone: (x: number) => number,
): Placed {
  const body = bodyFor(positions, way);
  const back = round < 0;
  // Round −1 is the first of those traversed backwards.
  const parts = body.round(back ? -round - 1 : round, back);
  const slots = parts.reduce((sum, p) => sum + p.slots, 0);
  let at = (back ? 1 - share : share) * slots;
  const part = parts.find((p, i) => i === parts.length - 1 || at < p.slots || ((at -= p.slots), false))!;
  const whole = Math.min(Math.floor(at), part.slots - 1);
  const x = at - whole;
  const { turn, shift } = part.at(whole, back ? 1 - gone(1 - x) : gone(x));
  return { turn, shift: [shift[0] - body.middle[0], shift[1], shift[2] - body.middle[1]] };
}

/** A stretch of a round: along one side of the path, or a turn on the spot. */
interface Part {
  /** Steps over an edge; a turn on the spot takes as long as one. */
  readonly slots: number;
  /** The pose after whole steps and a fraction 0…1 of the next. */
  at(steps: number, x: number): Placed;
}

function same(a: Placed, b: Placed): boolean {
  const dot = Math.abs(a.turn.reduce((sum, x, k) => sum + x * b.turn[k], 0));
  return dot > 1 - 1e-9 && a.shift.every((x, k) => Math.abs(x - b.shift[k]) < 1e-6 * (1 + Math.abs(x)));
}

/** Rolling bodies by their points: a still body is analysed once, not at every frame. */
const known = new WeakMap<Float32Array, Map<string, RollingBody>>();

function bodyFor(positions: Float32Array, way: Way): RollingBody {
  let bodies = known.get(positions);
  if (!bodies) known.set(positions, (bodies = new Map()));
  const key = JSON.stringify(way);
  let body = bodies.get(key);
  if (!body) bodies.set(key, (body = new RollingBody(positions, way)));
  return body;
}

class RollingBody {
  /** Mean start of the sides of the first round, relative to the body's rest; x and z. */
  readonly middle: readonly [number, number];
  private readonly start: Placed;
  /** Whether it turns on the spot at the end of each side of the first round. */
  private readonly turnsAt: boolean[] = [];
  /** Rounds forwards and backwards, as far as they have been needed. */
  private readonly rounds: Record<'on' | 'back', { readonly parts: Part[]; readonly end: Placed }[]> = {
    on: [],
    back: [],
  };

  constructor(
    private readonly positions: Float32Array,
    private readonly way: Way,
  ) {
    this.start = this.side({ turn: IDENTITY, shift: [0, 0, 0] }, 0, 1).at(0, 0);
    let placed = this.start;
    const centres: Corner[] = [];
    for (let j = 0; j < way.corners; j++) {
      centres.push(this.ground(placed).centre);
      placed = endOf(this.side(placed, j, 1));
      this.turnsAt.push(!this.hasEdge(placed, j + 1));
      if (this.turnsAt[j]) placed = endOf(this.spot(placed, 1));
    }
    const mean = (k: 0 | 1) => centres.reduce((sum, c) => sum + c[k], 0) / centres.length;
    this.middle = [mean(0) - centres[0][0], mean(1) - centres[0][1]];
  }

  /** The parts of a round; once a pose recurs, its rounds do too. */
  round(number: number, back: boolean): readonly Part[] {
    const rounds = this.rounds[back ? 'back' : 'on'];
    for (let r = rounds.length; r <= number; r++) {
      const from = r === 0 ? this.start : rounds[r - 1].end;
      if (r > 0 && (r === MOST_ROUNDS || same(from, this.start))) return rounds[number % r].parts;
      rounds.push(this.roundFrom(from, back));
    }
    return rounds[number].parts;
  }

  private roundFrom(from: Placed, back: boolean): { parts: Part[]; end: Placed } {
    const { corners } = this.way;
    const parts: Part[] = [];
    let end = from;
    const add = (part: Part) => {
      parts.push(part);
      end = endOf(part);
    };
    for (let i = 0; i < corners; i++) {
      const j = back ? corners - 1 - i : i;
      if (back && this.turnsAt[j]) add(this.spot(end, -1));
      add(this.side(end, j, back ? -1 : 1));
      if (!back && this.turnsAt[j]) add(this.spot(end, 1));
    }
    return { parts, end };
  }

  /** Along side j of the path, or back along it. */
  private side({ turn, shift }: Placed, j: number, sign: 1 | -1): Part {
    const [hx, hz] = this.heading(j).map((h) => sign * h);
    const roll = rollAlong(moved(this.positions, turn, [0, 0, 0], shift), (p, i) => p[i] * hx + p[i + 2] * hz);
    return {
      slots: this.way.along,
      at(steps, x) {
        const { angle, corner, ground } = roll.at(steps, x);
        const q = axisAngle([-hz, 0, hx], (angle * 180) / Math.PI);
        return about({ turn, shift }, q, [corner[0] * hx, corner[1], corner[0] * hz], [ground * hx, 0, ground * hz]);
      },
    };
  }

  /** A turn on the spot by the angle of a corner. */
  private spot(placed: Placed, sign: 1 | -1): Part {
    const [x, z] = this.ground(placed).centre;
    const angle = (sign * 360) / this.way.corners;
    return {
      slots: 1,
      at: (_steps, share) => about(placed, axisAngle([0, 1, 0], angle * share), [x, 0, z], [x, 0, z]),
    };
  }

  private heading(j: number): readonly [number, number] {
    const [hx, hz] = this.way.heading;
    const [x, , z] = rotate(axisAngle([0, 1, 0], (360 * j) / this.way.corners), [hx, 0, hz]);
    return [x, z];
  }

  /** The outline that it rests on, seen from above (x, −z), and its centre (x, z). */
  private ground({ turn, shift }: Placed): { outline: Corner[]; centre: Corner } {
    const p = moved(this.positions, turn, [0, 0, 0], shift);
    let [low, high] = [Infinity, -Infinity];
    for (let i = 1; i < p.length; i += 3) [low, high] = [Math.min(low, p[i]), Math.max(high, p[i])];
    const points: Corner[] = [];
    for (let i = 0; i < p.length; i += 3) if (p[i + 1] - low <= 1e-3 * (high - low)) points.push([p[i], -p[i + 2]]);
    const outline = convexHull(points, 1e-4 * (high - low));
    const corners = outline.length > 0 ? outline : points;
    const mean = (k: 0 | 1) => corners.reduce((sum, c) => sum + c[k], 0) / corners.length;
    return { outline, centre: [mean(0), -mean(1)] };
  }

  /** Whether one of the edges that it rests on, other than a facet, is perpendicular to the heading of side j. */
  private hasEdge(placed: Placed, j: number): boolean {
    const [hx, hz] = this.heading(j);
    const { outline } = this.ground(placed);
    const edges = outline.map((a, i) => {
      const b = outline[(i + 1) % outline.length];
      return [b[0] - a[0], b[1] - a[1]] as const;
    });
    const longest = Math.max(0, ...edges.map((e) => Math.hypot(...e)));
    // The outward normal of an edge (dx, dy) of a counter-clockwise outline is (dy, −dx).
    return edges.some(([dx, dy]) => {
      const length = Math.hypot(dx, dy);
      return length >= FACET.share * longest && (dy * hx + dx * hz) / length > Math.cos(SQUARE);
    });
  }
}

const endOf = (part: Part) => part.at(part.slots - 1, 1);

/** Rotates by q about a point, which moves to another. */
function about({ turn, shift }: Placed, q: Quaternion, from: Vec3, to: Vec3): Placed {
  const [x, y, z] = rotate(q, [shift[0] - from[0], shift[1] - from[1], shift[2] - from[2]]);
  return { turn: multiply(q, turn), shift: [x + to[0], y + to[1], z + to[2]] };
}
