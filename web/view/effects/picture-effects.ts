import { grainAt, grainNumber } from '@maypole/core/develop/effects';
import type { DisplayEffectType, PictureEffectAt } from '@maypole/core/scene/kind';
import {
  clamp,
  dot,
  float,
  length,
  max,
  mix,
  pow,
  smoothstep,
  step,
  texture,
  uniform,
  uv,
  vec2,
  vec3,
} from 'three/tsl';
import { Vector3, type Node, type Texture } from 'three/webgpu';
import { shaderMaths } from '../patterns/shader-maths';
import { rgb, scalar } from '../surfaces/tsl';

type Vec3Node = Node<'vec3'>;
type Effect<T extends PictureEffectAt['type']> = Extract<PictureEffectAt, { type: T }>;

/** Size of the picture: aspect ratio, and height in pixels over 1000. */
export const frame = { aspect: uniform(1), scale: uniform(1) };

const number = () => uniform(0);

/** Distance from the middle, 1 at the corners. */
const outwards = () => length(uv().sub(0.5)).mul(Math.SQRT2);

/** A display effect as a shader: its node, and how its uniforms are set. */
interface Drawn<T extends PictureEffectAt> {
  readonly fill: (effect: T) => void;
  readonly apply: (shown: Vec3Node) => Vec3Node;
}

/** Display effects, each compiled once; their numbers are uniforms. */
const shown: { [T in DisplayEffectType]: () => Drawn<Effect<T>> } = {
  vignette() {
    const [amount, reach] = [uniform(0), uniform(1)];
    return {
      fill: (v) => {
        amount.value = v.amount;
        reach.value = v.reach;
      },
      apply: (c) => {
        const dark = smoothstep(float(1).sub(reach), float(1.08), outwards());
        return c.mul(float(1).sub(dark.mul(amount))) as Vec3Node;
      },
    };
  },
  grain() {
    const [amount, size, chance] = [uniform(0), uniform(1), uniform(0)];
    return {
      fill: (v) => {
        amount.value = v.amount;
        size.value = v.size;
        chance.value = grainNumber(v.throw);
      },
      apply: (c) => {
        const cell = uv()
          .mul(vec2(frame.aspect, float(1)))
          .mul(frame.scale.mul(1000).div(max(size, frame.scale.reciprocal())))
          .floor();
        const g = grainAt(shaderMaths, scalar(cell.x), scalar(cell.y), scalar(chance));
        // Film has most grain in its midtones.
        const grey = dot(c, vec3(0.2126, 0.7152, 0.0722));
        const tone = grey.mul(float(1).sub(grey)).mul(4).mul(0.75).add(0.25);
        return c.add(g.mul(amount).mul(tone).mul(0.6)) as Vec3Node;
      },
    };
  },
  grade() {
    const [lift, gamma, gain] = [uniform(new Vector3()), uniform(new Vector3()), uniform(new Vector3())];
    return {
      fill: (v) => {
        lift.value.set(...v.lift);
        gamma.value.set(...v.gamma);
        gain.value.set(...v.gain);
      },
      apply: (c) => {
        const raised = c.add(lift.mul(vec3(1).sub(c))).mul(gain);
        return pow(max(raised, vec3(0)), vec3(1).div(gamma)) as Vec3Node;
      },
    };
  },
  levels() {
    const [heights, slopes] = [0, 1].map(() => Array.from({ length: 5 }, number));
    const of = uniform(new Vector3());
    return {
      fill: (v) => {
        v.heights.forEach((h, i) => (heights[i].value = h));
        v.slopes.forEach((m, i) => (slopes[i].value = m));
        of.value.set(...v.of);
      },
      apply: (c) => {
        const x = clamp(c, 0, 1);
        const piece = x.mul(4).floor().min(3);
        const t = x.mul(4).sub(piece);
        // The table entry for each of the three channels.
        const pick = (list: readonly ReturnType<typeof number>[], on: number) =>
          [1, 2, 3].reduce((so, i) => rgb(mix(so, vec3(list[i + on]), step(vec3(i), piece))), rgb(vec3(list[on])));
        const [t2, t3] = [t.mul(t), t.mul(t).mul(t)];
        const curve = pick(heights, 0)
          .mul(t3.mul(2).sub(t2.mul(3)).add(1))
          .add(
            pick(slopes, 0)
              .mul(t3.sub(t2.mul(2)).add(t))
              .div(4),
          )
          .add(pick(heights, 1).mul(t2.mul(3).sub(t3.mul(2))))
          .add(pick(slopes, 1).mul(t3.sub(t2)).div(4));
        return mix(c, curve, of) as Vec3Node;
      },
    };
  },
  look() {
    const [contrast, saturation, warmth, lift] = [uniform(0), uniform(1), uniform(0), uniform(0)];
    return {
      fill: (v) => {
        contrast.value = v.contrast;
        saturation.value = v.saturation;
        warmth.value = v.warmth;
        lift.value = v.lift;
      },
      apply: (c) => {
        const grey = dot(c, vec3(0.2126, 0.7152, 0.0722));
        const coloured = mix(vec3(grey), c, saturation);
        const warm = coloured.mul(
          vec3(float(1).add(warmth.mul(0.22)), float(1).add(warmth.mul(0.03)), float(1).sub(warmth.mul(0.24))),
        );
        const x = clamp(warm, 0, 1);
        // An S-curve through 0, ½ and 1; softer is the way back to the straight line and beyond.
        const curve = x.mul(x).mul(x.mul(-2).add(3));
        const bent = mix(x, curve, contrast);
        return bent.mul(float(1).sub(lift)).add(lift) as Vec3Node;
      },
    };
  },
};

const isDisplayEffect = (type: PictureEffectAt['type']): type is DisplayEffectType => type in shown;

const isEffect = <T extends PictureEffectAt['type']>(e: PictureEffectAt, type: T): e is Effect<T> => e.type === type;

/** A display effect of a list: its node, and how its uniforms are set from that list. */
interface Listed {
  readonly fill: (list: readonly PictureEffectAt[]) => void;
  readonly apply: (shown: Vec3Node) => Vec3Node;
}

/** The display effect at an index of the list. */
function listed<T extends DisplayEffectType>(type: T, at: number): Listed {
  const { fill, apply } = shown[type]();
  return {
    apply,
    fill(list) {
      const effect = list[at];
      if (isEffect(effect, type)) fill(effect);
    },
  };
}

/** The effects of a picture, compiled together in their order. */
export class PictureEffects {
  private readonly drawn: readonly Listed[];
  private readonly parting = uniform(0);
  readonly parts: boolean;

  /** @param types in the order of the list */
  constructor(types: readonly PictureEffectAt['type'][]) {
    this.parts = types.includes('fringe');
    this.drawn = types.flatMap((type, at) => (isDisplayEffect(type) ? [listed(type, at)] : []));
  }

  fill(list: readonly PictureEffectAt[]): void {
    for (const { fill } of this.drawn) fill(list);
    const fringe = list.find((e) => e.type === 'fringe');
    if (fringe) this.parting.value = fringe.amount / 100;
  }

  /** Reads a texture, with red and blue displaced outwards if there is a fringe. */
  read(of: Texture, set: (node: ReturnType<typeof texture>) => void): { rgb: Vec3Node; a: Node<'float'> } {
    const green = texture(of);
    set(green);
    if (!this.parts) return { rgb: green.rgb as Vec3Node, a: green.a as Node<'float'> };
    const at = (sign: number) => {
      const node = texture(of, uv().add(uv().sub(0.5).mul(this.parting.mul(sign)).mul(outwards())));
      set(node);
      return node;
    };
    const [red, blue] = [at(-1), at(1)];
    return {
      rgb: rgb(vec3(red.r, green.g, blue.b)),
      a: max(max(red.a, blue.a), green.a) as Node<'float'>,
    };
  }

  apply(colour: Vec3Node): Vec3Node {
    return this.drawn.reduce((c, { apply }) => apply(c), colour);
  }
}
