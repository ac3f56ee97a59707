import type { GroundAt } from '@maypole/core/scene/kind';
import {
  cameraFar,
  cameraNear,
  float,
  max,
  min,
  orthographicDepthToViewZ,
  perspectiveDepthToViewZ,
  positionView,
  positionWorld,
  screenUV,
  select,
  smoothstep,
  texture,
  uniform,
  vec2,
  vec4,
} from 'three/tsl';
import {
  AddEquation,
  CustomBlending,
  DepthTexture,
  HalfFloatType,
  Matrix4,
  Mesh,
  NodeMaterial,
  OneFactor,
  OneMinusSrcAlphaFactor,
  PlaneGeometry,
  RenderTarget,
  Texture,
  Vector2,
  type Camera,
  type Scene,
  type TextureNode,
  type WebGPURenderer,
} from 'three/webgpu';
import { lensOffset } from '../stage/subframes';
import { parallelView } from '../objects/wires';

type Catcher = Extract<GroundAt, { type: 'catcher' }>;

/** Blur of a fully rough reflection, in metres per metre of distance. */
const SPREAD = 0.7;

/** Flips left and right. */
const FLIP = new Matrix4().makeScale(-1, 1, 1);

/**
 * Reflection of a scene in a level floor, drawn by a camera below the floor. A rough reflection samples an offset in
 * each sub-frame that grows with the distance of what is reflected; so it is sharp where things touch the floor.
 */
export class Mirror {
  readonly mesh: Mesh;
  private readonly target = new RenderTarget(1, 1, { type: HalfFloatType, depthTexture: new DepthTexture(1, 1) });
  private readonly image: TextureNode;
  private readonly depth: TextureNode;
  private readonly amount = uniform(0);
  private readonly reach = uniform(1);
  private readonly beside = uniform(new Vector2());
  private readonly farthest = uniform(1);
  /** Shares of the picture per metre across, one metre away. */
  private readonly scale = uniform(new Vector2());
  private readonly plane = new Matrix4();
  private readonly size = new Vector2();

  constructor() {
    this.image = texture(new Texture()) as TextureNode;
    this.depth = texture(new Texture()) as TextureNode;
    this.mesh = new Mesh(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2), this.make());
    this.mesh.frustumCulled = false;
    // Over the shadows, and before everything transparent.
    this.mesh.renderOrder = -0.5;
  }

  /**
   * Draws the reflection.
   *
   * @param radius of the scene, in metres
   * @param number index of the sub-frame, out of how many
   */
  draw(
    renderer: WebGPURenderer,
    scene: Scene,
    camera: Camera,
    floor: Catcher,
    radius: number,
    number: number,
    of: number,
  ): void {
    this.amount.value = floor.mirror;
    this.reach.value = floor.reach;
    this.farthest.value = 2 * radius;
    const [x, y] = of === 1 ? [0, 0] : lensOffset(number + 3);
    const spread = SPREAD * floor.rough * floor.rough;
    this.beside.value.set(x * spread, y * spread);
    this.mesh.position.y = floor.height;
    // No larger than can matter: a card cannot draw an infinite floor.
    const size = Math.min(floor.reach, 60 * Math.max(0.5, radius));
    this.mesh.scale.set(size, 1, size);
    renderer.getDrawingBufferSize(this.size);
    this.target.setSize(this.size.x, this.size.y);
    this.image.value = this.target.texture;
    this.depth.value = this.target.depthTexture!;
    const { elements } = camera.projectionMatrix;
    this.scale.value.set(elements[0] / 2, elements[5] / 2);
    const below = this.below(camera, floor.height);
    const { background } = scene;
    scene.background = null;
    const before = renderer.getRenderTarget();
    renderer.setRenderTarget(this.target);
    renderer.setClearColor('#000000', 0);
    renderer.render(scene, below);
    renderer.setRenderTarget(before);
    scene.background = background;
  }

  dispose(): void {
    this.target.dispose();
    this.mesh.geometry.dispose();
    (this.mesh.material as NodeMaterial).dispose();
  }

  private readonly cameras = new WeakMap<Camera, Camera>();

  /**
   * The camera mirrored in the floor. A mirrored scene would be reversed, with every face seen from behind; so the
   * picture is flipped, and shown flipped back.
   */
  private below(camera: Camera, height: number): Camera {
    let below = this.cameras.get(camera);
    if (!below) {
      this.cameras.set(camera, (below = camera.clone()));
      below.matrixAutoUpdate = below.matrixWorldAutoUpdate = false;
    }
    camera.updateMatrixWorld();
    this.plane.set(1, 0, 0, 0, 0, -1, 0, 2 * height, 0, 0, 1, 0, 0, 0, 0, 1);
    below.matrixWorld.copy(this.plane).multiply(camera.matrixWorld).multiply(FLIP);
    below.matrix.copy(below.matrixWorld);
    below.matrixWorldInverse.copy(below.matrixWorld).invert();
    below.coordinateSystem = camera.coordinateSystem;
    // Flipped on both sides, an off-axis frustum is off-axis on the other side.
    below.projectionMatrix.copy(FLIP).multiply(camera.projectionMatrix).multiply(FLIP);
    below.projectionMatrixInverse.copy(below.projectionMatrix).invert();
    Object.assign(below, { near: (camera as { near?: number }).near, far: (camera as { far?: number }).far });
    return below;
  }

  private make(): NodeMaterial {
    const material = new NodeMaterial();
    material.transparent = true;
    material.depthWrite = false;
    // The reflection is radiance already, times its coverage.
    material.blending = CustomBlending;
    material.blendEquation = AddEquation;
    material.blendSrc = material.blendSrcAlpha = OneFactor;
    material.blendDst = material.blendDstAlpha = OneMinusSrcAlphaFactor;
    const at = vec2(float(1).sub(screenUV.x), screenUV.y);
    const depth = this.depth.sample(at).r;
    const z = select(
      parallelView.greaterThan(0.5),
      orthographicDepthToViewZ(depth, cameraNear, cameraFar),
      perspectiveDepthToViewZ(depth, cameraNear, cameraFar),
    );
    const [seen, floor] = [z.negate(), positionView.z.negate()];
    const away = min(max(seen.sub(floor), 0), this.farthest);
    // Offset in metres at the distance of what is reflected, as shares of the picture.
    const perMetre = this.scale.mul(
      select(parallelView.greaterThan(0.5), float(1), float(1).div(max(floor.add(away), 1e-3))),
    );
    const shown = this.image.sample(at.add(this.beside.mul(away).mul(perMetre)));
    const fade = smoothstep(this.reach, this.reach.mul(0.4), positionWorld.xz.length());
    material.fragmentNode = vec4(shown).mul(this.amount).mul(fade);
    return material;
  }
}
