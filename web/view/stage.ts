import { fitFrame } from '@maypole/core/scene/lens';
import { LinearSRGBColorSpace, PerspectiveCamera, Scene, WebGPURenderer } from 'three/webgpu';
import { extentOf } from './extent';
import type { ViewFrame } from './frame';
import { Lights } from './lights';
import { Picture } from './picture';
import { RibbonObject } from './ribbon-object';
import { drawsInSoftware } from './software';
import { Air } from './air';
import { lensOffset, pixelOffset } from './subframes';

/** Why no picture can be drawn, in words for the user. */
export class NoPicture extends Error {
  override readonly name = 'NoPicture';
}

const ADVICE =
  'This browser gives no access to 3D drawing (WebGPU or WebGL 2). Turn on hardware acceleration in its settings and restart it, or open Maypole in a current version of another browser.';

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

/** A canvas that draws frames; the same for the editor, the thumbnails and the files. */
export class Stage {
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(40, 1, 0.01, 1000);
  private readonly ribbons = new Map<string, RibbonObject>();
  private readonly lights = new Lights(this.scene);
  private readonly picture: Picture;
  private readonly air = new Air();
  /** How many sub-frames a picture that stands still is the average of: fewer where each has its price. */
  readonly subframes: { readonly edges: number; readonly soft: number };
  private width = 1;
  private height = 1;

  private constructor(
    readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    private readonly renderer: WebGPURenderer,
  ) {
    // The picture brings light to display values itself, and what it writes is shown as it is.
    renderer.outputColorSpace = LinearSRGBColorSpace;
    const software = drawsInSoftware(canvas);
    this.subframes = software ? { edges: 4, soft: 24 } : { edges: 16, soft: 64 };
    this.picture = new Picture(renderer, software ? 0 : SAMPLES);
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
      const renderer = new WebGPURenderer({ canvas: canvas as HTMLCanvasElement, forceWebGL: drawsInSoftware(spare) });
      await renderer.init();
      let ended = false;
      renderer.onDeviceLost = () => {
        if (!ended) onLost?.();
        ended = true;
      };
      return new Stage(canvas, renderer);
    } catch (error) {
      console.warn(error);
      throw new NoPicture(ADVICE);
    }
  }

  /** Size of the picture in device pixels. */
  setSize(width: number, height: number): void {
    if (width === this.width && height === this.height) return;
    this.width = width;
    this.height = height;
    this.renderer.setPixelRatio(1);
    this.renderer.setSize(width, height, false);
    this.picture.setSize(width, height);
  }

  /**
   * Draws at once; the canvas may be copied right after this, in the same task.
   *
   * @param number which sub-frame, from 0; the average of those so far is shown
   * @param of how many there will be at least; with 1 nothing is averaged
   */
  draw(frame: ViewFrame, number = 0, of = 1): void {
    const { camera: at, lights } = frame.scene;
    const aspect = this.width / this.height;
    const { fov } = fitFrame(at.focalLength, frame.aspect, aspect);
    const distance = Math.hypot(...at.position.map((p, k) => p - at.target[k]));
    this.camera.fov = fov;
    this.camera.aspect = aspect;
    this.camera.near = Math.max(0.0001, distance / 200);
    this.camera.far = distance * 20 + 200;
    this.camera.position.set(...at.position);
    this.camera.up.set(0, 1, 0);
    this.camera.lookAt(...at.target);
    const [dx, dy] = of === 1 ? [0, 0] : pixelOffset(number);
    const [lx, ly] = of === 1 || at.lensRadius === 0 ? [0, 0] : lensOffset(number).map((x) => x * at.lensRadius);
    // The camera goes to a point of the lens, and the picture is shifted so that what is in focus stays where it is.
    const perMetre = this.height / 2 / Math.tan((fov * Math.PI) / 360) / at.focusDistance;
    this.camera.translateX(lx);
    this.camera.translateY(ly);
    this.camera.setViewOffset(this.width, this.height, dx - lx * perMetre, dy + ly * perMetre, this.width, this.height);
    this.lights.update(lights, () => extentOf(frame), number, of);
    this.scene.fogNode = this.air.node(frame.scene.air);
    this.arrange(frame);
    const glass = frame.ribbons.some((r) => Object.values(r.surfaces).some((s) => s.features.includes('glass')));
    this.picture.draw(this.scene, this.camera, { ...frame.scene, glass }, number, of);
  }

  /** Frees what it holds on the graphics device. */
  dispose(): void {
    for (const object of this.ribbons.values()) object.dispose();
    this.ribbons.clear();
    this.lights.dispose();
    this.picture.dispose();
    this.renderer.dispose();
  }

  private arrange(frame: ViewFrame): void {
    const seen = new Set<string>();
    for (const ribbon of frame.ribbons) {
      seen.add(ribbon.id);
      let object = this.ribbons.get(ribbon.id);
      if (!object) {
        object = new RibbonObject();
        this.ribbons.set(ribbon.id, object);
        this.scene.add(object.group);
      }
      object.update(ribbon, frame.wardrobe, frame.mode);
    }
    for (const [id, object] of this.ribbons) {
      if (seen.has(id)) continue;
      this.scene.remove(object.group);
      object.dispose();
      this.ribbons.delete(id);
    }
  }
}
