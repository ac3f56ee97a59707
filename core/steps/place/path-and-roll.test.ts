import { describe, expect, it } from 'vitest';
import { randomSource } from '../../maths/random';
import { seriesFor, sample } from '../../time/motions/wander';
import { drawnCurve } from '../../time/drawn';
import { fadeWindow } from '../../time/window';
import { phaseOf, splitTime, cyclesGone } from '../../time/phase';
import { convexHull, rollOf, type Corner } from './rolling';

describe('convex hulls', () => {
  it('contain all points, turn left at every corner, and are those of brute force', () => {
    const random = randomSource(14);
    for (let n = 0; n < 40; n++) {
      const points: Corner[] = Array.from({ length: 4 + Math.floor(random() * 30) }, () => [
        random() * 4,
        random() * 3,
      ]);
      const hull = convexHull(points, 1e-9);
      const left = (a: Corner, b: Corner, c: Corner) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
      hull.forEach((a, i) => {
        const b = hull[(i + 1) % hull.length];
        for (const p of points) expect(left(a, b, p)).toBeGreaterThanOrEqual(-1e-9);
        expect(left(a, b, hull[(i + 2) % hull.length])).toBeGreaterThan(0);
      });
      // A pair of points is a side exactly if all others lie on one side of the line through them.
      const sides = points.flatMap((a) =>
        points.filter((b) => b !== a && points.every((p) => left(a, b, p) >= 0)),
      ).length;
      expect(hull).toHaveLength(sides);
    }
  });
  it('leave out corners that stand out less than the tolerance', () => {
    const square: Corner[] = [
      [0, 0],
      [1, -1e-5],
      [2, 0],
      [2, 2],
      [0, 2],
    ];
    expect(convexHull(square, 1e-3)).toHaveLength(4);
    expect(convexHull(square, 1e-7)).toHaveLength(5);
  });
});

/** The outline of a square of side 2 whose corners are rounded by a radius, each by so many facets. */
function rounded(radius: number, facets: number): Corner[] {
  const out: Corner[] = [];
  for (let corner = 0; corner < 4; corner++) {
    const from = (corner - 1) * (Math.PI / 2);
    const middle = [
      [1 - radius, radius - 1],
      [1 - radius, 1 - radius],
      [radius - 1, 1 - radius],
      [radius - 1, radius - 1],
    ][corner];
    for (let i = 0; i <= facets; i++) {
      const a = from + (i / facets) * (Math.PI / 2);
      out.push([middle[0] + radius * Math.cos(a), middle[1] + radius * Math.sin(a)]);
    }
  }
  return out;
}

describe('rolling over bevels', () => {
  it.each([
    [0.05, 1],
    [0.1, 2],
    [0.2, 4],
    [0.3, 8],
  ])('of %f m in %i facets makes the quarter turns of the plain box, on the ground all the way', (radius, facets) => {
    const outline = rounded(radius, facets);
    const roll = rollOf(outline);
    expect(roll.sides).toBe(4);
    const lowest = ({ angle, corner }: ReturnType<typeof roll.at>) =>
      Math.min(...outline.map(([x, y]) => (x - corner[0]) * Math.sin(angle) + (y - corner[1]) * Math.cos(angle)));
    let before = roll.at(0, 0);
    for (let s = 0; s < 8; s++) {
      const [begin, end] = [roll.at(s, 0), roll.at(s + 1, 0)];
      // A quarter turn, and as far on each time.
      expect(Math.cos(begin.angle - end.angle)).toBeCloseTo(0, 9);
      expect(Math.sin(begin.angle - end.angle)).toBeCloseTo(1, 9);
      expect(roll.travel(s + 1) - roll.travel(s)).toBeCloseTo(roll.travel(1), 9);
      for (let i = 0; i < 50; i++) {
        const now = roll.at(s, i / 50);
        expect(lowest(now)).toBeCloseTo(0, 9);
        // The body goes on without a jump: a place of it is near where it was.
        const place = ({ angle, corner, ground }: typeof now) =>
          ground + (0 - corner[0]) * Math.cos(angle) - (0 - corner[1]) * Math.sin(angle);
        expect(Math.abs(place(now) - place(before))).toBeLessThan(0.08);
        before = now;
      }
    }
  });
  it('leaves the narrow sides of a plate, and those of even prisms', () => {
    const plate: Corner[] = [
      [0, 0],
      [3, 0],
      [3, 0.1],
      [0, 0.1],
    ];
    expect(rollOf(plate).sides).toBe(4);
    for (const n of [3, 5, 6, 8, 12, 40]) {
      const prism = Array.from({ length: n }, (_, i): Corner => [
        Math.cos((2 * Math.PI * i) / n),
        Math.sin((2 * Math.PI * i) / n),
      ]);
      expect(rollOf(prism).sides).toBe(n);
    }
  });
});

describe('rolling', () => {
  const rectangle = rollOf([
    [0, 0],
    [3, 0],
    [3, 1],
    [0, 1],
  ]);
  it('a rectangle goes on by its sides in turn, and once round by its girth', () => {
    expect([0, 1, 2, 3, 4, 8].map((s) => rectangle.travel(s))).toEqual([0, 3, 4, 7, 8, 16]);
    expect(rectangle.sides).toBe(4);
  });
  it('turns by the outer angle of each corner, a whole turn in all, and pivots on the ground', () => {
    let turned = 0;
    for (let s = 0; s < 4; s++) {
      const [a, b] = [rectangle.at(s, 0), rectangle.at(s, 0.999999)];
      turned += a.angle - b.angle;
      expect(a.corner).toEqual(b.corner);
      expect(a.ground).toBe(b.ground);
    }
    expect(turned).toBeCloseTo(2 * Math.PI, 4);
  });
  it('is continuous: the end of one step is the start of the next, for any convex outline', () => {
    const random = randomSource(3);
    const outline = convexHull(
      Array.from({ length: 24 }, (_, i) => [Math.cos(i) * (1 + random()), Math.sin(i) * (1 + random())] as Corner),
      1e-6,
    );
    const roll = rollOf(outline);
    const place = (s: number, x: number, p: Corner) => {
      const { angle, corner, ground } = roll.at(s, x);
      const [u, w] = [p[0] - corner[0], p[1] - corner[1]];
      return [ground + Math.cos(angle) * u - Math.sin(angle) * w, Math.sin(angle) * u + Math.cos(angle) * w];
    };
    for (let s = 0; s < 2 * roll.sides; s++)
      for (const p of outline) {
        const [a, b] = [place(s, 1 - 1e-9, p), place(s + 1, 0, p)];
        expect(a[0]).toBeCloseTo(b[0], 6);
        expect(a[1]).toBeCloseTo(b[1], 6);
        // Nothing ever sinks in.
        expect(place(s, 0.37, p)[1]).toBeGreaterThan(-1e-6);
      }
  });
});

describe('closed random lines', () => {
  it('are the sum of cosines they are declared to be: Horner agrees with the plain sum', () => {
    for (const [rate, octaves, seed] of [
      [1, 1, 3],
      [6, 4, 8],
      [16, 5, 2],
    ]) {
      const series = seriesFor(rate, octaves, seed);
      for (const f of [0, 13, 77.3, 240, -5]) {
        let [value, slope] = [0, 0];
        for (let h = 1; h < series.real.length; h++) {
          const a = (2 * Math.PI * h * f) / 240;
          value += series.real[h] * Math.cos(a) - series.imaginary[h] * Math.sin(a);
          slope -= ((2 * Math.PI * h) / 240) * (series.real[h] * Math.sin(a) + series.imaginary[h] * Math.cos(a));
        }
        const got = sample(series, { frame: f, frames: 240 });
        expect(got.value).toBeCloseTo((value + series.shift) * series.scale, 9);
        expect(got.slope).toBeCloseTo(slope * series.scale, 9);
      }
    }
  });
  it('fill 0 to 1, and have other harmonics at other rates', () => {
    for (const rate of [1, 4, 12]) {
      const series = seriesFor(rate, 1, 5);
      const values = Array.from({ length: 4000 }, (_, i) => sample(series, { frame: i, frames: 4000 }).value);
      expect(Math.min(...values)).toBeCloseTo(0, 4);
      expect(Math.max(...values)).toBeCloseTo(1, 4);
      const power = Array.from(series.real, (a, h) => a * a + series.imaginary[h] ** 2);
      const middle = power.reduce((s, p, h) => s + p * h, 0) / power.reduce((s, p) => s + p, 0);
      expect(middle / rate).toBeGreaterThan(0.7);
      expect(middle / rate).toBeLessThan(1.5);
    }
  });
});

describe('drawn cycles and windows', () => {
  it('a drawn cycle goes through its heights, with continuous slope from the end to the start', () => {
    const heights = [0, 0.5, 1, 0.2, 0.7];
    const { value, slope } = drawnCurve(heights);
    heights.forEach((h, i) => expect(value(i / 5)).toBeCloseTo(h, 9));
    expect(slope(1 - 1e-9)).toBeCloseTo(slope(0), 5);
    for (const p of [0.05, 0.33, 0.91]) expect(slope(p)).toBeCloseTo((value(p + 1e-6) - value(p - 1e-6)) / 2e-6, 4);
  });
  it('a window is shut round the seam, open in the middle, and smooth between', () => {
    const at = (frame: number) => fadeWindow(0.2, { frame, frames: 100 });
    for (const f of [0, 5, 10, 90, 99]) expect(at(f)).toEqual({ value: 0, slope: 0 });
    for (const f of [31, 50, 69]) expect(at(f).value).toBe(1);
    for (const f of [12, 20, 28, 75, 88])
      expect(at(f).slope).toBeCloseTo((at(f + 1e-4).value - at(f - 1e-4).value) / 2e-4, 5);
  });
});

describe('time taken apart', () => {
  it('a place in a period and the periods gone by make up the moment again', () => {
    const random = randomSource(8);
    for (let n = 0; n < 300; n++) {
      const [frames, loops] = [1 + Math.floor(random() * 300), 1 + Math.floor(random() * 6)];
      const clock = { frame: Math.floor((random() - 0.5) * 3000), frames, loops: Math.floor((random() - 0.5) * 20) };
      const { frame, cycles } = splitTime(clock, loops);
      expect(frame + cycles * loops * frames).toBe(clock.frame + clock.loops * frames);
      expect(frame).toBeGreaterThanOrEqual(0);
      expect(frame).toBeLessThan(loops * frames);
      expect(cyclesGone(clock, loops)).toBe(cycles);
      // Whole loops kept apart give the phase that they give in the frame.
      expect(phaseOf({ num: 3, den: 2 }, clock)).toBe(
        phaseOf({ num: 3, den: 2 }, { frame: clock.frame + clock.loops * frames, frames }),
      );
    }
  });
});
