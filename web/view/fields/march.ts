import { CUBE, NEAR, type DistanceField } from '@maypole/core/shape/fractals/field';
import {
  abs,
  attribute,
  Break,
  cameraNear,
  cameraProjectionMatrix,
  cameraViewMatrix,
  cameraWorldMatrix,
  float,
  Fn,
  If,
  int,
  Loop,
  max,
  min,
  modelWorldMatrix,
  modelWorldMatrixInverse,
  normalViewGeometry,
  overrideNodes,
  positionGeometry,
  positionView,
  positionWorld,
  screenSize,
  select,
  transformNormalToView,
  uniform,
  vec3,
  vec4,
} from 'three/tsl';
import { BackSide, BoxGeometry, Vector4, type MeshStandardNodeMaterial, type Node } from 'three/webgpu';
import { four, integer, rgb, scalar, type Int, type Rgb, type Scalar, type Variable } from '../surfaces/tsl';
import { clipDepth } from './clip-depth';
import { boundNodes } from './bounds';

/** Most steps along a ray; a ray that has not arrived by then misses. */
const STEPS = 160;
/** A point counts as a hit when it is nearer than this share of a pixel. */
const PIXEL = 0.6;
/** Shortest distance at which occlusion is probed, in sizes of the form. */
const CREVICE = 0.02;
/** Least hit distance that single precision resolves, relative to the size of the form. */
const FINEST = 2e-5;

type Vec4 = Node<'vec4'>;

/** What a shader is compiled for. */
export type FieldStructure = Pick<DistanceField, 'form' | 'cut'>;

/** Box vertices under a name of their own: 'position' is replaced by the hit. */
const FAR_SIDE = 'farSide';

/** Geometry of a form's box, stretched by its matrix. */
export function fieldBox({ cut }: FieldStructure): BoxGeometry {
  const edge = 2.002 * (cut === 'ball' ? 1 : CUBE);
  const box = new BoxGeometry(edge, edge, edge);
  box.setAttribute(FAR_SIDE, box.getAttribute('position'));
  return box;
}

/**
 * Makes a material show a form by sphere tracing (J. C. Hart, “Sphere tracing”, 1996). The far sides of its box are
 * drawn, so that it is visible from outside and inside; the ray of each pixel is marched from the near side, or the
 * camera. Position, normal and depth are those of the hit, in shadow maps too.
 */
export class MarchedField {
  private readonly numbers = uniform(new Vector4());
  private readonly rounds = uniform(0, 'int');
  /** Centre of the zoomed part, and its magnification. */
  private readonly part = uniform(new Vector4(0, 0, 0, 1));
  private readonly skin = uniform(0);
  private readonly bound: (p: Rgb) => Scalar;
  /** The hit in the form's own space, and whether there is one: 1 or 0. */
  private readonly hit: Vec4;
  /** Gradient at the hit, in the form's own space. */
  private readonly rise: Rgb;
  /** Ambient occlusion at the hit, 0…1. */
  readonly occlusion: Scalar;

  constructor({ form, cut }: FieldStructure, material: MeshStandardNodeMaterial) {
    const call = boundFunction({ form, cut });
    this.bound = (p) =>
      call(p, this.numbers as object as Vec4, integer(this.rounds), this.part as object as Vec4, scalar(this.skin));
    this.hit = four(this.march(cut).toVar());
    this.rise = rgb(this.gradient().toVar());
    this.occlusion = scalar(this.depth().toVar());
    const normal = rgb(transformNormalToView(this.rise).normalize());
    const world = rgb(modelWorldMatrix.mul(vec4(this.hit.xyz, 1)).xyz);
    const view = rgb(cameraViewMatrix.mul(vec4(world, 1)).xyz);
    material.side = BackSide;
    material.shadowSide = BackSide;
    material.polygonOffset = false;
    material.maskNode = this.hit.w.greaterThan(0.5);
    material.normalNode = normal;
    material.depthNode = clipDepth(cameraProjectionMatrix.mul(vec4(view, 1)) as object as Vec4);
    material.receivedShadowPositionNode = world;
    const instead = (usual: Node, found: Node) =>
      [
        usual,
        (builder: { readonly shaderStage: string }) => (builder.shaderStage === 'fragment' ? found : usual),
      ] as const;
    material.contextNode = overrideNodes([
      instead(positionView, view),
      instead(positionWorld, world),
      instead(positionGeometry, world),
      instead(normalViewGeometry, normal),
    ] as never);
  }

  update({ numbers, rounds, middle, zoom, skin }: DistanceField): void {
    this.part.value.set(...middle, zoom);
    this.numbers.value.set(...numbers);
    this.rounds.value = rounds;
    this.skin.value = skin;
  }

  private march(cut: DistanceField['cut']): Vec4 {
    return four(
      Fn(() => {
        const far = rgb(attribute<'vec3'>(FAR_SIDE, 'vec3').toVar());
        const seen = rgb(cameraViewMatrix.mul(modelWorldMatrix).mul(vec4(far, 1)).xyz.toVar());
        const p = cameraProjectionMatrix as unknown as { element(i: number): Vec4 };
        const parallel = p.element(3).w.greaterThan(0.5);
        // Parallel rays may be sheared; others start at the camera.
        const leaning = vec3(p.element(2).x.div(p.element(0).x), p.element(2).y.div(p.element(1).y), -1);
        const ahead = rgb(select(parallel, leaning, seen).normalize().toVar());
        const along = rgb(modelWorldMatrixInverse.mul(cameraWorldMatrix).mul(vec4(ahead, 0)).xyz.toVar());
        // Lengths in the form's own space per metre along the ray.
        const perMetre = scalar(along.length().toVar());
        const d = rgb(along.div(perMetre).toVar());
        // Distance back to where the ray enters the box, and to the near plane.
        const half = 1.001 * (cut === 'ball' ? 1 : CUBE);
        const back = rgb(
          far
            .mul(d.sign())
            .add(half)
            .div(max(abs(d), 1e-7)),
        );
        const way = scalar(seen.z.negate().sub(cameraNear).div(ahead.z.negate()).toVar());
        const length = scalar(min(min(back.x, min(back.y, back.z)), way.mul(perMetre)).toVar());
        const start = rgb(far.sub(d.mul(length)).toVar());
        // Width of a pixel: constant, or proportional to the distance.
        const pixel = scalar(
          float(2 * PIXEL)
            .div(p.element(1).y.mul(screenSize.y))
            .toVar(),
        );
        const metres = scalar(seen.length().toVar());
        const t = scalar(float(0).toVar()) as Scalar & Variable;
        const met = scalar(float(0).toVar()) as Scalar & Variable;
        Loop({ start: int(0), end: int(STEPS), type: 'int', condition: '<' }, () => {
          const away = scalar(this.bound(rgb(start.add(d.mul(t)))).toVar());
          const from = select(parallel, float(1), metres.sub(length.sub(t).div(perMetre)));
          If(away.lessThan(max(pixel.mul(from).mul(perMetre), FINEST)), () => {
            met.assign(1);
            Break();
          });
          t.addAssign(away);
          If(t.greaterThan(length), () => Break());
        });
        return vec4(start.add(d.mul(t)), met);
      })(),
    );
  }

  /** From four points of a tetrahedron (after I. Quilez, “Normals for an SDF”), cheaper than six. */
  private gradient(): Rgb {
    return rgb(
      Fn(() => {
        const at = rgb(this.hit.xyz);
        const [a, b, c, d] = [vec3(1, -1, -1), vec3(-1, -1, 1), vec3(-1, 1, -1), vec3(1, 1, 1)].map((e) => {
          const side = rgb(e);
          return side.mul(this.bound(rgb(at.add(side.mul(4 * FINEST)))));
        });
        return a.add(b).add(c).add(d);
      })(),
    );
  }

  /**
   * Occlusion from bounds along the normal: shortfalls at a few distances, each weighted half of the one before. A
   * bound that underestimates everywhere is normalised by its growth right in front of the hit.
   */
  private depth(): Scalar {
    return scalar(
      Fn(() => {
        const [at, n] = [rgb(this.hit.xyz), rgb(this.rise.normalize().toVar())];
        const near = this.bound(rgb(at.add(n.mul(CREVICE / 8)))).sub(this.bound(at));
        const grows = scalar(
          near
            .div(CREVICE / 8)
            .clamp(0.1, 1)
            .toVar(),
        );
        const shares = [1, 2, 3, 4].map((k) => {
          const away = CREVICE * k;
          const room = this.bound(rgb(at.add(n.mul(away)))).div(grows);
          return float(away)
            .sub(room)
            .max(0)
            .div(away)
            .mul(2 ** -k);
        });
        return shares.reduce((sum, x) => scalar(sum.add(x))).clamp(0, 1);
      })(),
    );
  }
}

type Bound = (p: Rgb, numbers: Vec4, rounds: Int, part: Vec4, skin: Scalar) => Scalar;

/** The cut form's bound as one shader function. */
export function boundFunction({ form, cut }: FieldStructure): Bound {
  const own = boundNodes[form];
  const call = Fn(([p, numbers, rounds, part, skin]: [Rgb, Vec4, Int, Vec4, Scalar]) => {
    const a = abs(p);
    const outer = scalar((cut === 'ball' ? p.length().sub(1) : max(a.x, max(a.y, a.z)).sub(CUBE)).toVar());
    const out = scalar(outer.toVar()) as Scalar & Variable;
    If(outer.lessThanEqual(NEAR), () => {
      out.assign(
        max(
          outer,
          own(rgb(p.div(part.w).add(part.xyz)), numbers, rounds)
            .mul(part.w)
            .sub(skin),
        ),
      );
    });
    return out;
  }) as unknown as { setLayout(layout: object): Bound };
  return call.setLayout({
    name: `bound_${form}_${cut}`,
    type: 'float',
    inputs: [
      { name: 'p', type: 'vec3' },
      { name: 'numbers', type: 'vec4' },
      { name: 'rounds', type: 'int' },
      { name: 'part', type: 'vec4' },
      { name: 'skin', type: 'float' },
    ],
  });
}
