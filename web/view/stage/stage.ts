import { environmentOf, type BackdropAt, type CameraAt } from '@maypole/core/scene/kind';
import { distanceAhead, fitFrame, halfHeight } from '@maypole/core/scene/lens';
import {
  LinearSRGBColorSpace,
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  Scene,
  WebGPURenderer,
} from 'three/webgpu';
import { DeviceQueue } from './device-queue';
import { AmbientOcclusion, type Occlusions } from '../lights/ambient-occlusion';
import { extentOf } from './extent';
import type { ViewFrame } from './frame';
import { Grounds } from '../lights/grounds';
import { Lights } from '../lights/lights';
import { Picture } from '../effects/picture';
import { RibbonObject } from '../objects/ribbon-object';
import { EnvironmentFilter } from '../lights/environment-filter';
import { drawsInSoftware } from './software';
import { Air } from '../lights/air';
import { AirGlows } from '../lights/air-glows';
import { frameShare, parallelView, pictureAspect } from '../objects/wires';
import { lensOffset, pixelOffset } from './subframes';

/** Why no picture can be drawn, in words for the user. */
class NoPicture extends Error {
  override readonly name = 'NoPicture';
}

const ADVICE =
  'This browser gives no access to 3D drawing (WebGPU or WebGL 2). Turn on hardware acceleration in its ' +
  'settings and restart it, or open Maypole in a current version of another browser.';

/** Multisampling on a graphics card. In software, sub-frames alone antialias. */
const SAMPLES = 4;

/** Whether WebGPU is not only known to the browser but available. */
async function hasWebGpu(): Promise<boolean> {
  const { gpu } = navigator as { gpu?: { requestAdapter(): Promise<unknown> } };
  return Boolean(await gpu?.requestAdapter().catch(() => null));
}

/** A canvas for probing, in a page or in a worker. */
function spareCanvas(): HTMLCanvasElement | OffscreenCanvas {
  return typeof document === 'undefined' ? new OffscreenCanvas(1, 1) : document.createElement('canvas');
}

/** A camera focused as set: at a distance, or on the centre of a ribbon. */
function focused(at: CameraAt, frame: Pick<ViewFrame, 'ribbons'>): CameraAt {
  const ribbon = at.focusOn === undefined ? undefined : frame.ribbons.find((r) => r.id === at.focusOn);
  if (!ribbon) return at;
  const { centre } = extentOf({ ribbons: [ribbon] });
  return { ...at, focusDistance: Math.max(0.001, distanceAhead(at, centre)) };
}

/** How far beyond the centre of the scene shadows are needed, in its radii and in metres. */
function shadowReach({ ground, air }: ViewFrame['scene']): { readonly radii: number; readonly metres: number } {
  const haze = air.find((a) => a.type === 'haze');
  return { radii: ground.length > 0 ? 8 : 1.5, metres: haze?.reach ?? 0 };
}

/** Shears the rays of an orthographic camera, as through a point of a lens: they meet again at the focus distance. */
function lean(camera: OrthographicCamera, x: number, y: number, focus: number): void {
  // What is d metres ahead, at z = −d, moves by x · (1 − d / focus).
  const shear = new Matrix4().set(1, 0, x / focus, x, 0, 1, y / focus, y, 0, 0, 1, 0, 0, 0, 0, 1);
  camera.projectionMatrix.multiply(shear);
  camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
}

/** A canvas that draws frames; the same for editor, thumbnails and files. */
export class Stage {
  private readonly scene = new Scene();
  private readonly perspective = new PerspectiveCamera();
  private readonly parallel = new OrthographicCamera();
  private readonly ribbons = new Map<string, RibbonObject>();
  private readonly lights: Lights;
  private readonly picture: Picture;
  private readonly queue: DeviceQueue;
  private readonly air = new Air();
  private readonly glows = new AirGlows(this.scene, this.air);
  private domes: Occlusions | null = null;
  private readonly grounds = new Grounds(this.scene);
  /** Sub-frames of a still picture: fewer where each is expensive. */
  readonly subframes: { readonly edges: number; readonly soft: number };
  private width = 1;
  private height = 1;
  /** Size of the picture at full resolution. */
  private whole = { width: 1, height: 1 };
  private coarse = 1;
  /** Set by the device itself, a moment after it is lost. */
  private gone = false;

  private constructor(
    readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    private readonly renderer: WebGPURenderer,
    software: boolean,
  ) {
    // The picture is tone mapped here; its output is shown unchanged.
    renderer.outputColorSpace = LinearSRGBColorSpace;
    this.subframes = software ? { edges: 4, soft: 24 } : { edges: 16, soft: 64 };
    this.picture = new Picture(renderer, software ? 0 : SAMPLES);
    this.queue = new DeviceQueue(renderer);
    this.lights = new Lights(this.scene, this.air, software ? new EnvironmentFilter(renderer) : null);
    renderer.shadowMap.enabled = true;
  }

  /**
   * Throws NoPicture if the browser has no 3D drawing.
   *
   * @param onLost called when the graphics device is lost; the stage draws nothing more then
   */
  static async create(canvas: HTMLCanvasElement | OffscreenCanvas, onLost?: () => void): Promise<Stage> {
    const spare = spareCanvas();
    if (!spare.getContext('webgl2') && !(await hasWebGpu())) throw new NoPicture(ADVICE);
    try {
      // Without a graphics card WebGPU is unavailable, and it takes a second or two to learn that. Probed on a spare
      // canvas: one with a WebGL context cannot switch to WebGPU.
      const software = drawsInSoftware(spare);
      const renderer = new WebGPURenderer({ canvas: canvas as HTMLCanvasElement, forceWebGL: software });
      await renderer.init();
      const stage = new Stage(canvas, renderer, software);
      renderer.onDeviceLost = () => {
        if (!stage.gone) onLost?.();
        stage.gone = true;
      };
      return stage;
    } catch (error) {
      console.warn(error);
      throw new NoPicture(ADVICE);
    }
  }

  /** Whether the graphics device is lost: whatever was drawn since is empty, and must not be used. */
  get lost(): boolean {
    return this.gone || this.queue.lost;
  }

  /** Asks the device whether it is alive: what was read before is then whole. */
  async sound(): Promise<boolean> {
    return (await this.queue.sound()) && !this.lost;
  }

  /** Size of the picture in device pixels. */
  setSize(width: number, height: number): void {
    this.whole = { width, height };
    this.resize();
  }

  /** Device pixels per pixel of the picture, each way. */
  setCoarse(coarse: number): void {
    if (coarse === this.coarse) return;
    this.coarse = coarse;
    this.resize();
  }

  private resize(): void {
    const [width, height] = [this.whole.width, this.whole.height].map((n) => Math.ceil(n / this.coarse));
    if (width === this.width && height === this.height) return;
    this.width = width;
    this.height = height;
    this.renderer.setPixelRatio(1);
    this.renderer.setSize(width, height, false);
    this.picture.setSize(width, height);
    this.lights.setHeight(height);
  }

  /**
   * Draws at once; the canvas may be copied right after this, in the same task.
   *
   * @param number index of the sub-frame, from 0; the average so far is shown
   * @param of least number of sub-frames to come; with 1 nothing is averaged
   * @param shown whether the average is shown; accumulating alone costs less
   */
  draw(frame: ViewFrame, number = 0, of = 1, shown = true): void {
    const { lights } = frame.scene;
    const at = focused(frame.scene.camera, frame);
    const camera = this.aimed(at, frame.aspect, number, of);
    this.lights.update(lights, frame.scene.air, () => extentOf(frame), shadowReach(frame.scene), number, of);
    this.glows.update(frame, number);
    const domes = this.occlusionsOf(frame, number, of);
    this.grounds.update(frame.scene.ground, domes);
    this.scene.fogNode = this.air.node(frame.scene.air, () => extentOf(frame));
    this.arrange(frame, domes?.forms ?? null);
    const glass = frame.ribbons.some((r) => Object.values(r.surfaces).some((s) => s.features.includes('glass')));
    const { backdrop } = frame.scene;
    this.showEnvironment(backdrop);
    const seeThrough = (frame.seeThrough ?? false) && backdrop.type === 'colour' && (backdrop.clear ?? false);
    this.countDrawing();
    this.grounds.reflect(this.renderer, camera, frame.scene.ground, () => extentOf(frame), number, of);
    this.picture.draw(
      this.scene,
      camera,
      {
        ...frame.scene,
        camera: at,
        frame: fitFrame(at.focalLength, frame.aspect, this.width / this.height),
        extent: () => extentOf(frame),
        around: this.lights.meanRadiance,
        glass,
        seeThrough,
        shows: frame.mode === 'exposure' ? 'stops' : frame.mode === 'sharp' ? 'sharp' : 'colours',
        half: halfHeight(at, frame.aspect, this.width / this.height),
      },
      number,
      of,
      shown,
    );
    this.queue.handedOver();
  }

  /** Shows the environment behind everything, if the backdrop asks for it and there is one. */
  private showEnvironment(backdrop: BackdropAt): void {
    const { scene } = this;
    const shown = backdrop.type === 'round' && scene.environmentIntensity > 0;
    scene.background = shown ? this.lights.environmentMap : null;
    if (!shown) return;
    scene.backgroundBlurriness = backdrop.blur;
    scene.backgroundIntensity = scene.environmentIntensity * backdrop.strength;
    scene.backgroundRotation.copy(scene.environmentRotation);
  }

  /** Ambient occlusion, if the environment asks for it. */
  private occlusionsOf(frame: ViewFrame, number: number, of: number): Occlusions | null {
    const { lights, ground } = frame.scene;
    const round = environmentOf(lights);
    if (round?.shade === undefined) return null;
    this.domes ??= { forms: new AmbientOcclusion(), floor: new AmbientOcclusion(true) };
    const extent = extentOf(frame);
    this.domes.forms.update(round.shade, extent, number, of);
    if (ground.some((g) => g.type === 'catcher')) this.domes.floor.update(round.shade, extent, number, of);
    return this.domes;
  }

  /**
   * Tells the renderer that another picture begins. By itself it does so once per screen refresh, and draws shadows
   * once in between: all sub-frames of a file would share the first's.
   */
  private countDrawing(): void {
    const { _nodes } = this.renderer as unknown as { readonly _nodes?: { readonly nodeFrame: { update(): void } } };
    _nodes?.nodeFrame.update();
  }

  /** The camera of a sub-frame: from a point of its lens, through a position within each pixel. */
  private aimed(
    at: CameraAt,
    outputAspect: number,
    number: number,
    of: number,
  ): PerspectiveCamera | OrthographicCamera {
    const { width, height } = this;
    const aspect = width / height;
    const half = halfHeight(at, outputAspect, aspect);
    const distance = Math.hypot(...at.position.map((p, k) => p - at.target[k]));
    const camera = at.parallel > 0 ? this.parallel : this.perspective;
    if (camera instanceof PerspectiveCamera) {
      camera.fov = (2 * Math.atan(half) * 180) / Math.PI;
      camera.aspect = aspect;
      camera.near = Math.max(0.0001, distance / 200);
    } else {
      camera.top = half;
      camera.right = half * aspect;
      camera.bottom = -camera.top;
      camera.left = -camera.right;
      // Nothing is behind an orthographic camera.
      camera.near = -(distance * 20 + 200);
    }
    camera.far = distance * 20 + 200;
    camera.position.set(...at.position);
    camera.up.set(0, 1, 0);
    camera.lookAt(...at.target);
    camera.rotateZ((at.roll * Math.PI) / 180);
    const [dx, dy] = of === 1 ? [0, 0] : pixelOffset(number);
    const [lx, ly] =
      of === 1 || at.lensRadius === 0 ? [0, 0] : lensOffset(number, at.blades).map((x) => x * at.lensRadius);
    // The camera moves to a point of the lens, and the picture shifts so that what is in focus stays.
    const perMetre = at.parallel > 0 ? 0 : height / 2 / half / at.focusDistance;
    if (camera instanceof PerspectiveCamera) {
      camera.translateX(lx);
      camera.translateY(ly);
    }
    const frame = fitFrame(at.focalLength, outputAspect, aspect);
    frameShare.value = frame.height;
    pictureAspect.value = aspect;
    parallelView.value = at.parallel > 0 ? 1 : 0;
    const [sx, sy] = [at.shift[0] * frame.width * width, at.shift[1] * frame.height * height];
    camera.setViewOffset(width, height, dx - lx * perMetre - sx, dy + ly * perMetre + sy, width, height);
    camera.updateProjectionMatrix();
    // Parallel rays through a point of the lens are sheared, so that they meet again in focus.
    if (camera instanceof OrthographicCamera && at.lensRadius > 0) lean(camera, lx, ly, at.focusDistance);
    return camera;
  }

  /** Linear light of a pixel as last drawn. */
  lightAt(x: number, y: number): Promise<readonly [number, number, number]> {
    return this.picture.lightAt(x, y);
  }

  /** Linear light as last drawn: 4 numbers per pixel, rows from the top. */
  lightIn(width: number, height: number): Promise<Float32Array> {
    return this.picture.lightIn(width, height);
  }

  /** Resolves once the device has little queued, so that another picture is visible soon. */
  room(): Promise<void> {
    return this.queue.room();
  }

  /** Resolves once the picture is in the canvas. */
  done(): Promise<void> {
    return this.queue.done();
  }

  /** Frees its device resources. */
  dispose(): void {
    for (const object of this.ribbons.values()) object.dispose();
    this.ribbons.clear();
    this.lights.dispose();
    this.glows.dispose();
    this.grounds.dispose();
    this.domes?.forms.dispose();
    this.domes?.floor.dispose();
    this.picture.dispose();
    void this.renderer.dispose();
  }

  private arrange(frame: ViewFrame, dome: AmbientOcclusion | null): void {
    const seen = new Set<string>();
    for (const ribbon of frame.ribbons) {
      seen.add(ribbon.id);
      let object = this.ribbons.get(ribbon.id);
      if (!object) {
        object = new RibbonObject();
        this.ribbons.set(ribbon.id, object);
        this.scene.add(object.group);
      }
      object.update(ribbon, frame.materials, frame.mode, dome, frame.scene.camera.position);
    }
    for (const [id, object] of this.ribbons) {
      if (seen.has(id)) continue;
      this.scene.remove(object.group);
      object.dispose();
      this.ribbons.delete(id);
    }
  }
}
