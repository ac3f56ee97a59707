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
 * The tables of linearly transformed cosines (E. Heitz et al., “Real-time polygonal-light shading with linearly
 * transformed cosines”, 2016) are made once.
 */
function prepare(): void {
  if (!ready) RectAreaLightNode.setLTC(RectAreaLightTexturesLib.init());
  ready = true;
}

const [eye, aim] = [new Vector3(), new Vector3()];

/** What a light shadow of the library keeps to itself. */
interface Inner {
  readonly _frustum: unknown;
  _updateMatrix(camera: PerspectiveCamera, matrix: Matrix4, frustum: unknown): void;
}

const inner = (shadow: object) => shadow as Inner;

/** The shadow of a rectangle: in each sub-frame as thrown from another point of it. */
class AreaShadow extends LightShadow<PerspectiveCamera> {
  /** The point it is thrown from, and the way it looks. */
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
    // What a light shadow of the library does with its own camera, which it places itself.
    const { _updateMatrix: update, _frustum: frustum } = inner(this);
    update.call(this, camera, this.matrix, frustum);
  }
}

export interface AreaPlace {
  readonly at: readonly [number, number, number];
  readonly target: readonly [number, number, number];
  readonly width: number;
  readonly height: number;
  /** Degrees. */
  readonly turn: number;
  readonly seen: boolean;
  /** Where everything stands that may throw a shadow. */
  readonly extent: { readonly centre: readonly [number, number, number]; readonly radius: number };
  /** Point of the rectangle from which shadows are thrown, −1…1 each way from its middle. */
  readonly point: readonly [number, number];
  readonly reach: number;
}

/** A lit rectangle whose light is integrated in closed form, times the shadow thrown from a point of it. */
export class AreaLight extends RectAreaLight {
  readonly areaShadow = new AreaShadow();
  private readonly face: Mesh<PlaneGeometry, MeshBasicNodeMaterial>;

  constructor() {
    prepare();
    super();
    // Nodes of lights look for a shadow by this name, which this kind of light has not.
    Object.assign(this, { shadow: this.areaShadow });
    this.face = new Mesh(new PlaneGeometry(1, 1), new MeshBasicNodeMaterial({ side: FrontSide }));
    // It is seen from where it shines to.
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
    // A light looks along −z, which is the way a rectangle shines.
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
    // As wide as all that stands there, and no wider than a lens can be.
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
