import { surroundOf, type BackdropAt, type CameraAt } from '@maypole/core/scene/kind';
import { distanceAhead, fitFrame, halfHeight } from '@maypole/core/scene/lens';
import {
  LinearSRGBColorSpace,
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  Scene,
  WebGPURenderer,
} from 'three/webgpu';
import { DeviceQueue } from './device-done';
import { Dome, type Domes } from './dome';
import { extentOf } from './extent';
import type { ViewFrame } from './frame';
import { Grounds } from './grounds';
import { Lights } from './lights';
import { Picture } from './picture';
import { RibbonObject } from './ribbon-object';
import { SurroundFilter } from './surround-filter';
import { drawsInSoftware } from './software';
import { Air } from './air';
import { AirGlows } from './air-glows';
import { frameShare, parallelView, pictureAspect } from './wires';
import { lensOffset, pixelOffset } from './subframes';

/** Why no picture can be drawn, in words for the user. */
export class NoPicture extends Error {
  override readonly name = 'NoPicture';
}

const ADVICE =
  'This browser gives no access to 3D drawing (WebGPU or WebGL 2). Turn on hardware acceleration in its ' +
  'settings and restart it, or open Maypole in a current version of another browser.';

/** Samples of a pixel in each sub-frame, where a graphics card draws. In software edges are smooth by sub-frames alone. */
const SAMPLES = 4;

/** Whether WebGPU is not only known to the browser but to be had. */
async function hasWebGpu(): Promise<boolean> {
  const { gpu } = navigator as { gpu?: { requestAdapter(): Promise<unknown> } };
  return Boolean(await gpu?.requestAdapter().catch(() => null));
}

/** A canvas to try things on, in a page or in a worker. */
function spareCanvas(): HTMLCanvasElement | OffscreenCanvas {
  return typeof document === 'undefined' ? new OffscreenCanvas(1, 1) : document.createElement('canvas');
}

/** A camera that is sharp where it is told to be: at a distance, or on the middle of a ribbon that stands in the frame. */
function focused(at: CameraAt, frame: Pick<ViewFrame, 'ribbons'>): CameraAt {
  const ribbon = at.focusOn === undefined ? undefined : frame.ribbons.find((r) => r.id === at.focusOn);
  if (!ribbon) return at;
  const { centre } = extentOf({ ribbons: [ribbon] });
  return { ...at, focusDistance: Math.max(0.001, distanceAhead(at, centre)) };
}

/** How far beyond the middle of what stands there shadows are looked up, in its radii and in metres. */
function shadowReach({ ground, air }: ViewFrame['scene']): { readonly radii: number; readonly metres: number } {
  const haze = air.find((a) => a.type === 'haze');
  return { radii: ground.length > 0 ? 8 : 1.5, metres: haze?.reach ?? 0 };
}

/** Leans the rays of a camera whose rays are parallel, as through a point of a lens: they meet again so many metres ahead. */
function lean(camera: OrthographicCamera, x: number, y: number, focus: number): void {
  // What is d metres ahead, at z = −d, moves by x · (1 − d / focus).
  const shear = new Matrix4().set(1, 0, x / focus, x, 0, 1, y / focus, y, 0, 0, 1, 0, 0, 0, 0, 1);
  camera.projectionMatrix.multiply(shear);
  camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
}

/** A canvas that draws frames; the same for the editor, the thumbnails and the files. */
export class Stage {
  private readonly scene = new Scene();
  private readonly perspective = new PerspectiveCamera();
  private readonly parallel = new OrthographicCamera();
  private readonly ribbons = new Map<string, RibbonObject>();
  private readonly lights: Lights;
  private readonly picture: Picture;
  private readonly queue: DeviceQueue;
  private readonly air = new Air();
  private readonly glows = new AirGlows(this.scene);
  private domes: Domes | null = null;
  private readonly grounds = new Grounds(this.scene);
  /** How many sub-frames a picture that stands still is the average of: fewer where each has its price. */
  readonly subframes: { readonly edges: number; readonly soft: number };
  private width = 1;
  private height = 1;
  /** Size of the picture where nothing is left out. */
  private whole = { width: 1, height: 1 };
  private coarse = 1;
  /** Told by the device itself, a moment after it has gone. */
  private gone = false;

  private constructor(
    readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    private readonly renderer: WebGPURenderer,
    software: boolean,
  ) {
    // The picture brings light to display values itself, and what it writes is shown as it is.
    renderer.outputColorSpace = LinearSRGBColorSpace;
    this.subframes = software ? { edges: 4, soft: 24 } : { edges: 16, soft: 64 };
    this.picture = new Picture(renderer, software ? 0 : SAMPLES);
    this.queue = new DeviceQueue(renderer);
    this.lights = new Lights(this.scene, software ? new SurroundFilter(renderer) : null);
    renderer.shadowMap.enabled = true;
  }

  /**
   * Throws NoPicture where the browser has no 3D drawing.
   *
   * @param onLost told when the graphics device is gone; the stage draws nothing more then
   */
  static async create(canvas: HTMLCanvasElement | OffscreenCanvas, onLost?: () => void): Promise<Stage> {
    const spare = spareCanvas();
    if (!spare.getContext('webgl2') && !(await hasWebGpu())) throw new NoPicture(ADVICE);
    try {
      // Without a graphics card WebGPU is not to be had, and it takes a second or two to be told so.
      // Asked of a spare canvas: one that was asked for WebGL gives no WebGPU any more.
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

  /** Whether the graphics device is gone: what is drawn since then is empty, and nobody may take it for a picture. */
  get lost(): boolean {
    return this.gone || this.queue.lost;
  }

  /** Asks the device itself whether it is there: what was read from it before this is whole then. */
  async sound(): Promise<boolean> {
    return (await this.queue.sound()) && !this.lost;
  }

  /** Size of the picture in device pixels. */
  setSize(width: number, height: number): void {
    this.whole = { width, height };
    this.resize();
  }

  /** Device pixels that one of the picture covers each way. */
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
   * @param number which sub-frame, from 0; the average of those so far is shown
   * @param of how many there will be at least; with 1 nothing is averaged
   * @param shown whether the average is to be seen; what is only gone on with costs less
   */
  draw(frame: ViewFrame, number = 0, of = 1, shown = true): void {
    const { lights } = frame.scene;
    const at = focused(frame.scene.camera, frame);
    const camera = this.aimed(at, frame.aspect, number, of);
    this.lights.update(lights, () => extentOf(frame), shadowReach(frame.scene), number, of);
    this.glows.update(frame, number);
    const domes = this.domesOf(frame, number, of);
    this.grounds.update(frame.scene.ground, domes);
    this.scene.fogNode = this.air.node(frame.scene.air, () => extentOf(frame));
    this.arrange(frame, domes?.forms ?? null);
    const glass = frame.ribbons.some((r) => Object.values(r.surfaces).some((s) => s.features.includes('glass')));
    const { backdrop } = frame.scene;
    this.showRound(backdrop);
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
        around: this.lights.around,
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

  /** Shows the surroundings behind everything, where the backdrop asks for it and there are some. */
  private showRound(backdrop: BackdropAt): void {
    const { scene } = this;
    const shown = backdrop.type === 'round' && scene.environmentIntensity > 0;
    scene.background = shown ? this.lights.round : null;
    if (!shown) return;
    scene.backgroundBlurriness = backdrop.blur;
    scene.backgroundIntensity = scene.environmentIntensity * backdrop.strength;
    scene.backgroundRotation.copy(scene.environmentRotation);
  }

  /** What keeps light from all round out of corners, where the surroundings ask for it. */
  private domesOf(frame: ViewFrame, number: number, of: number): Domes | null {
    const { lights, ground } = frame.scene;
    const round = surroundOf(lights);
    if (round?.shade === undefined) return null;
    this.domes ??= { forms: new Dome(), floor: new Dome(true) };
    const extent = extentOf(frame);
    this.domes.forms.update(round.shade, extent, number, of);
    if (ground.some((g) => g.type === 'catcher')) this.domes.floor.update(round.shade, extent, number, of);
    return this.domes;
  }

  /**
   * Tells the renderer that another picture begins. By itself it does so once a turn of the screen,
   * and draws shadows once between two of those: all sub-frames of a file would have the first's.
   */
  private countDrawing(): void {
    const { _nodes } = this.renderer as unknown as { readonly _nodes?: { readonly nodeFrame: { update(): void } } };
    _nodes?.nodeFrame.update();
  }

  /** The camera of a sub-frame: it looks from a point of its lens, through a place within each pixel. */
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
      // Nothing is behind a camera whose rays are parallel.
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
    // The camera goes to a point of the lens, and the picture is shifted so that what is in focus stays where it is.
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
    // Parallel rays through a point of the lens lean, so that they meet again where it is sharp.
    if (camera instanceof OrthographicCamera && at.lensRadius > 0) lean(camera, lx, ly, at.focusDistance);
    return camera;
  }

  /** Linear light of a pixel of what was drawn last. */
  lightAt(x: number, y: number): Promise<readonly [number, number, number]> {
    return this.picture.lightAt(x, y);
  }

  /** Linear light of what was drawn last: 4 numbers a pixel, rows from the top. */
  lightIn(width: number, height: number): Promise<Float32Array> {
    return this.picture.lightIn(width, height);
  }

  /** Resolves once the device has little before it, so that another drawing is seen soon. */
  room(): Promise<void> {
    return this.queue.room();
  }

  /** Resolves once what was drawn stands in the canvas. */
  done(): Promise<void> {
    return this.queue.done();
  }

  /** Frees what it holds on the graphics device. */
  dispose(): void {
    for (const object of this.ribbons.values()) object.dispose();
    this.ribbons.clear();
    this.lights.dispose();
    this.glows.dispose();
    this.grounds.dispose();
    this.domes?.forms.dispose();
    this.domes?.floor.dispose();
    this.picture.dispose();
    this.renderer.dispose();
  }

  private arrange(frame: ViewFrame, dome: Dome | null): void {
    const seen = new Set<string>();
    for (const ribbon of frame.ribbons) {
      seen.add(ribbon.id);
      let object = this.ribbons.get(ribbon.id);
      if (!object) {
        object = new RibbonObject();
        this.ribbons.set(ribbon.id, object);
        this.scene.add(object.group);
      }
      object.update(ribbon, frame.wardrobe, frame.mode, dome, frame.scene.camera.position);
    }
    for (const [id, object] of this.ribbons) {
      if (seen.has(id)) continue;
      this.scene.remove(object.group);
      object.dispose();
      this.ribbons.delete(id);
    }
  }
}
