import { RectAreaLightTexturesLib } from 'three/examples/jsm/lights/RectAreaLightTexturesLib.js';
import {
  Color,
  FrontSide,
  LightShadow,
  Matrix4,
  Mesh,
  MeshBasicNodeMaterial,
  PerspectiveCamera,
  PlaneGeometry,
  RectAreaLight,
  RectAreaLightNode,
  Vector3,
} from 'three/webgpu';

let ready = false;

/**
 * Tables of linearly transformed cosines (E. Heitz et al., “Real-time polygonal-light shading with linearly transformed
 * cosines”, 2016), made once.
 */
function prepare(): void {
  if (!ready) RectAreaLightNode.setLTC(RectAreaLightTexturesLib.init());
  ready = true;
}

const [eye, aim] = [new Vector3(), new Vector3()];

/** Private parts of the library's light shadow. */
interface Inner {
  readonly _frustum: unknown;
  _updateMatrix(camera: PerspectiveCamera, matrix: Matrix4, frustum: unknown): void;
}

const inner = (shadow: object) => shadow as Inner;

/** Shadow of a rectangle: cast from another of its points in each sub-frame. */
class AreaShadow extends LightShadow<PerspectiveCamera> {
  /** The point it is cast from, and its direction. */
  readonly from = new Vector3();
  readonly towards = new Vector3();

  constructor() {
    super(new PerspectiveCamera(90, 1, 0.1, 100));
  }

  override updateMatrices(): void {
    const { camera } = this;
    camera.position.copy(this.from);
    camera.lookAt(this.towards);
    camera.updateMatrixWorld();
    // What the library's light shadow does with its own camera, which is placed here instead.
    const { _updateMatrix: update, _frustum: frustum } = inner(this);
    update.call(this, camera, this.matrix, frustum);
  }
}

interface AreaPlace {
  readonly at: readonly [number, number, number];
  readonly target: readonly [number, number, number];
  readonly width: number;
  readonly height: number;
  /** Degrees. */
  readonly turn: number;
  readonly seen: boolean;
  /** Bounding sphere of everything that may cast a shadow. */
  readonly extent: { readonly centre: readonly [number, number, number]; readonly radius: number };
  /** Point of the rectangle that casts shadows, −1…1 each way from its centre. */
  readonly point: readonly [number, number];
  readonly reach: number;
}

/** A rectangular light, integrated in closed form, times the shadow cast from one of its points. */
export class AreaLight extends RectAreaLight {
  readonly areaShadow = new AreaShadow();
  private readonly face: Mesh<PlaneGeometry, MeshBasicNodeMaterial>;

  constructor() {
    prepare();
    super();
    // Light nodes look for a shadow by this name, which this kind of light lacks.
    Object.assign(this, { shadow: this.areaShadow });
    this.face = new Mesh(new PlaneGeometry(1, 1), new MeshBasicNodeMaterial({ side: FrontSide }));
    // Visible from the side it shines to.
    this.face.rotation.y = Math.PI;
    this.add(this.face);
  }

  place(p: AreaPlace, colour: Color, radiance: number): void {
    this.color.copy(colour);
    this.intensity = radiance;
    this.width = p.width;
    this.height = p.height;
    this.position.set(...p.at);
    eye.set(...p.at);
    aim.set(...p.target);
    if (aim.distanceToSquared(eye) < 1e-12) aim.y -= 1;
    // A light looks along −z, the direction a rectangle shines.
    this.lookAt(aim);
    this.rotateZ((p.turn * Math.PI) / 180);
    this.updateMatrixWorld();
    this.face.visible = p.seen;
    this.face.scale.set(p.width, p.height, 1);
    this.face.material.color.copy(colour).multiplyScalar(radiance);
    const { areaShadow: shadow } = this;
    shadow.from.set((p.point[0] * p.width) / 2, (p.point[1] * p.height) / 2, 0).applyMatrix4(this.matrixWorld);
    shadow.towards.set(...p.extent.centre);
    const distance = Math.max(1e-3, shadow.from.distanceTo(shadow.towards));
    const { radius } = p.extent;
    // As wide as the scene, within what a lens can be.
    shadow.camera.fov = Math.min(150, (2 * Math.asin(Math.min(0.98, radius / distance)) * 180) / Math.PI + 8);
    shadow.camera.near = Math.max(0.02, distance - 1.1 * radius);
    shadow.camera.far = distance + p.reach;
    shadow.camera.updateProjectionMatrix();
    shadow.bias = -0.002;
    shadow.normalBias = 0.004 * radius;
  }

  override dispose(): void {
    this.face.geometry.dispose();
    this.face.material.dispose();
    this.areaShadow.dispose();
    super.dispose();
  }
}
