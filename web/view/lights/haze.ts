import type { AirAt } from '@maypole/core/scene/kind';
import {
  cameraPosition,
  cameraProjectionMatrixInverse,
  cameraViewMatrix,
  cameraWorldMatrix,
  cross,
  dot,
  exp,
  float,
  fract,
  getViewPosition,
  int,
  Loop,
  max,
  min,
  mix,
  normalize,
  output,
  positionGeometry,
  property,
  screenCoordinate,
  screenUV,
  select,
  smoothstep,
  sqrt,
  texture,
  uniform,
  vec2,
  vec3,
  vec4,
} from 'three/tsl';
import {
  AmbientLight,
  Color,
  HalfFloatType,
  LightingModel,
  Mesh,
  NearestFilter,
  NoBlending,
  NodeMaterial,
  PlaneGeometry,
  RenderTarget,
  Texture,
  Vector3,
  type Camera,
  type Light,
  type Node,
  type NodeBuilder,
  type Scene,
  type TextureNode,
  type WebGPURenderer,
} from 'three/webgpu';
import { AIR_LAYER, FILLS } from './air-layer';
import type { Extent } from '../stage/extent';
import { opticalDepth } from './air';
import { rgb, scalar, variable, type Rgb, type Scalar } from '../surfaces/tsl';
import { parallelView } from '../objects/wires';

type HazeAt = Extract<AirAt, { type: 'haze' }>;

/** Golden ratio: its multiples fill an interval evenly, however many there are. */
const GOLDEN = 0.618033988749;

/**
 * Single scattering in haze, with the shadows in it. A few points along each ray are sampled, others in every
 * sub-frame, so that the average is the integral ∫ σ(t) · e^{−τ(t)} · Σ p(θ)·E(t) dt, with the phase function of L.
 * Henyey and J. Greenstein (1941); the environment counts with its mean.
 */
export class Haze {
  private readonly colour = uniform(new Color());
  private readonly air = { extinction: uniform(0), height: uniform(0), ground: uniform(0) };
  private readonly forward = uniform(0);
  private readonly middle = uniform(new Vector3());
  private readonly reach = uniform(1);
  private readonly around = uniform(new Color());
  private readonly number = uniform(0);
  private readonly steps = uniform(8);
  private readonly target = new RenderTarget(1, 1, {
    type: HalfFloatType,
    depthBuffer: false,
    minFilter: NearestFilter,
    magFilter: NearestFilter,
  });
  private readonly light: TextureNode;
  private readonly depth: TextureNode;
  private readonly mesh: Mesh;
  /** The library lights nothing without a lamp, and the environment shows in haze even then. */
  private readonly unlit = new AmbientLight('#000000', 0);

  /** @param steps along each ray in every sub-frame */
  constructor(
    private readonly renderer: WebGPURenderer,
    steps: number,
  ) {
    this.steps.value = steps;
    this.light = texture(new Texture()) as TextureNode;
    this.depth = texture(new Texture()) as TextureNode;
    this.mesh = new Mesh(new PlaneGeometry(2, 2), this.make());
    this.mesh.frustumCulled = false;
    this.mesh.receiveShadow = true;
    this.mesh.layers.set(AIR_LAYER);
    this.unlit.layers.set(AIR_LAYER);
  }

  setSize(width: number, height: number): void {
    this.target.setSize(width, height);
  }

  /**
   * Composites haze over the picture so far.
   *
   * @param around mean radiance of the environment
   * @param number index of the sub-frame
   */
  draw(
    scene: Scene,
    camera: Camera,
    drawn: RenderTarget,
    air: HazeAt,
    { centre, radius }: Extent,
    around: Color,
    number: number,
  ): RenderTarget {
    this.colour.value.set(air.colour);
    this.air.extinction.value = air.extinction;
    this.forward.value = air.forward;
    this.air.height.value = air.height;
    this.air.ground.value = air.ground;
    this.middle.value.set(...centre);
    this.reach.value = Math.max(air.reach, radius);
    this.around.value.copy(around);
    this.number.value = number;
    this.light.value = drawn.texture;
    this.depth.value = drawn.depthTexture!;
    scene.add(this.mesh, this.unlit);
    const { background, fogNode } = scene;
    const { mask } = camera.layers;
    scene.background = scene.fogNode = null;
    camera.layers.set(AIR_LAYER);
    this.renderer.setRenderTarget(this.target);
    this.renderer.render(scene, camera);
    camera.layers.mask = mask;
    Object.assign(scene, { background, fogNode });
    scene.remove(this.mesh, this.unlit);
    return this.target;
  }

  dispose(): void {
    this.target.dispose();
    this.mesh.geometry.dispose();
    (this.mesh.material as NodeMaterial).dispose();
  }

  private make(): NodeMaterial {
    const material = new NodeMaterial();
    material.vertexNode = vec4(positionGeometry.xy, 1, 1);
    material.lights = true;
    material.fog = false;
    material.depthTest = material.depthWrite = false;
    material.blending = NoBlending;
    // Dust has no normal; the bias shifts shadow lookups slightly, which is invisible.
    material.normalNode = vec3(0, 0, 1);
    const model = new Scattering(this.ray.bind(this), this.forward);
    material.setupLightingModel = () => model;
    const before = this.light.sample(screenUV);
    const lost = property('float', 'hazeLost');
    const behind = before.a;
    material.outputNode = vec4(output.rgb.add(before.rgb), behind.add(lost).sub(behind.mul(lost)));
    return material;
  }

  /**
   * Marches the ray of a pixel; `at` is given each sampled point and returns the light scattered towards the camera.
   */
  private ray(at: (place: Rgb, seen: Rgb, eye: Rgb) => Rgb): { light: Rgb } {
    const far = getViewPosition(screenUV, this.depth.sample(screenUV).r, cameraProjectionMatrixInverse);
    const near = getViewPosition(screenUV, float(0), cameraProjectionMatrixInverse);
    const world = (p: unknown) => rgb(cameraWorldMatrix.mul(vec4(p as Rgb, 1)).xyz);
    // Parallel rays start beside the camera, others at it.
    const start = rgb(mix(cameraPosition, world(near), parallelView)).toVar();
    const way = world(far).sub(start).toVar();
    const end = way.length();
    const ahead = normalize(way).toVar();
    // Between entering the haze and leaving it, or the hit.
    const from = this.middle.sub(start);
    const nearest = dot(from, ahead);
    const inside = this.reach.mul(this.reach).sub(dot(from, from).sub(nearest.mul(nearest)));
    const half = sqrt(max(inside, 0));
    const first = max(nearest.sub(half), 0).toVar();
    const last = max(first, min(nearest.add(half), end)).toVar();
    const step = last.sub(first).div(float(this.steps)).toVar();
    const noise = fract(dot(screenCoordinate.xy.floor(), vec2(0.06711056, 0.00583715))).mul(52.9829189);
    const jitter = fract(noise.add(float(this.number).mul(GOLDEN))).toVar();
    const sum = vec3(0).toVar();
    const eye = rgb(cameraViewMatrix.mul(vec4(ahead.negate(), 0)).xyz).toVar();
    const density = (place: Rgb) =>
      select(
        this.air.height.greaterThan(0),
        exp(this.air.ground.sub(place.y).div(max(this.air.height, 1e-3))),
        float(1),
      ).mul(this.air.extinction);
    const depthTo = (t: Scalar, place: Rgb) =>
      opticalDepth(scalar(t.sub(first)), rgb(start.add(ahead.mul(first))), place, this.air);
    Loop({ start: int(0), end: int(this.steps), type: 'int', condition: '<' }, ({ i }) => {
      const t = scalar(first.add(float(i).add(jitter).mul(step)).toVar());
      const place = rgb(start.add(ahead.mul(t)).toVar());
      const seen = rgb(cameraViewMatrix.mul(vec4(place, 1)).xyz).toVar();
      const met = at(place, seen, eye).add(this.around);
      // The haze fades out towards its edge, so that none is visible.
      const thin = smoothstep(this.reach, this.reach.mul(0.55), place.sub(this.middle).length());
      sum.addAssign(
        met
          .mul(density(place).mul(thin))
          .mul(exp(depthTo(t, place).negate()))
          .mul(step),
      );
    });
    const whole = depthTo(scalar(last), rgb(start.add(ahead.mul(last))));
    property('float', 'hazeLost').assign(float(1).sub(exp(whole.negate())));
    return { light: rgb(sum.mul(rgb(this.colour))) };
  }
}

interface Builder {
  readonly context: Record<string, unknown> & { outgoingLight: { assign(x: Node): void } };
}

interface Direct {
  readonly lightNode: { readonly light: Light };
  readonly lightDirection: Rgb;
  readonly lightColor: Rgb;
}

interface Rectangle {
  readonly lightColor: Rgb;
  readonly lightPosition: Rgb;
  readonly halfWidth: Rgb;
  readonly halfHeight: Rgb;
}

/** The lights of a scene as dust receives them, evaluated at every point of a ray. */
class Scattering extends LightingModel {
  private readonly met = variable('hazeMet');
  private eye: Rgb | null = null;
  private seen: Rgb | null = null;
  private readonly light = variable('hazeLight');

  constructor(
    private readonly ray: (at: (place: Rgb, seen: Rgb, eye: Rgb) => Rgb) => { light: Rgb },
    private readonly forward: Node,
  ) {
    super();
  }

  override start(builder: NodeBuilder): void {
    const { light } = this.ray((place, seen, eye) => {
      // Looked up here: it belongs to the current position in the shader.
      Object.assign((builder as object as Builder).context, {
        positionWorld: place,
        shadowPositionWorld: place,
        positionView: seen,
      });
      this.eye = eye;
      this.seen = seen;
      this.met.assign(vec3(0));
      super.start(builder);
      return this.met;
    });
    this.light.assign(light);
  }

  override direct(data: unknown): void {
    const { lightNode, lightDirection, lightColor } = data as Direct;
    if (lightNode.light.userData[FILLS]) return;
    this.add(rgb(lightColor.mul(this.phase(lightDirection))));
  }

  override directRectArea(data: unknown): void {
    const { lightColor, lightPosition, halfWidth, halfHeight } = data as Rectangle;
    const facing = cross(halfWidth, halfHeight);
    const area = facing.length().mul(4);
    const way = lightPosition.sub(this.seen!);
    const towards = normalize(way);
    // A rectangle shines to one side: the library's along −z, against the cross product of its halves.
    const cosine = max(dot(normalize(facing), towards), 0);
    // Approximate solid angle: projected area over squared distance, and half the sphere close by.
    const seen = area.mul(cosine);
    const met = seen.div(
      dot(way, way)
        .add(seen.div(2 * Math.PI))
        .max(1e-6),
    );
    this.add(rgb(lightColor.mul(met).mul(this.phase(rgb(towards)))));
  }

  override finish(builder: NodeBuilder): void {
    (builder as object as Builder).context.outgoingLight.assign(this.light);
  }

  private add(light: Rgb): void {
    this.met.addAssign(light);
  }

  /** Phase function per steradian, by the angle between incoming light and the camera. */
  private phase(towardsLight: Rgb): Scalar {
    const g = this.forward as Scalar;
    // Light comes from `towardsLight` and continues to the camera: forward where these are opposite.
    const cosine = dot(towardsLight, this.eye!).negate();
    const below = float(1).add(g.mul(g)).sub(g.mul(cosine).mul(2)).max(1e-4);
    return scalar(
      float(1)
        .sub(g.mul(g))
        .div(below.pow(1.5))
        .div(4 * Math.PI),
    );
  }
}
