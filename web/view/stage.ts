import { fitFrame } from '@maypole/core/scene/lens';
import { Color, DirectionalLight, LinearSRGBColorSpace, PerspectiveCamera, Scene, WebGPURenderer } from 'three/webgpu';
import type { ViewFrame } from './frame';
import { displayColour } from './ribbon-materials';
import { RibbonObject } from './ribbon-object';
import { studioTexture } from './studio';

/** Why no picture can be drawn, in words for the user. */
export class NoPicture extends Error {
  override readonly name = 'NoPicture';
}

const ADVICE =
  'This browser gives no access to 3D drawing (WebGPU or WebGL 2). Turn on hardware acceleration in its settings and restart it, or open Maypole in a current version of another browser.';

/** A canvas that draws frames; the same for the editor, the thumbnails and the files. */
export class Stage {
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(40, 1, 0.01, 1000);
  private readonly ribbons = new Map<string, RibbonObject>();
  private readonly key = new DirectionalLight('#ffffff', 2);
  private readonly background = new Color();
  private readonly studio = studioTexture();
  private width = 1;
  private height = 1;

  private constructor(
    readonly canvas: HTMLCanvasElement,
    private readonly renderer: WebGPURenderer,
  ) {
    // Materials write display colours themselves (see ribbon-object.ts), so the picture is drawn
    // straight to the canvas: no second pass, and edges are smoothed in the space the eye sees.
    renderer.outputColorSpace = LinearSRGBColorSpace;
    this.scene.environment = this.studio;
    this.scene.background = this.background;
    this.scene.add(this.key, this.key.target);
  }

  /** Throws NoPicture where the browser has no 3D drawing. */
  static async create(canvas: HTMLCanvasElement): Promise<Stage> {
    if (!('gpu' in navigator) && !document.createElement('canvas').getContext('webgl2')) throw new NoPicture(ADVICE);
    try {
      const renderer = new WebGPURenderer({ canvas, antialias: true });
      await renderer.init();
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
  }

  /** Draws at once; the canvas may be copied right after this, in the same task. */
  draw(frame: ViewFrame): void {
    const { scene: at } = frame;
    const aspect = this.width / this.height;
    const { fov } = fitFrame(at.focalLength, frame.outputAspect, aspect);
    const distance = Math.hypot(...at.pose.position.map((p, k) => p - at.pose.target[k]));
    this.camera.fov = fov;
    this.camera.aspect = aspect;
    this.camera.near = Math.max(0.001, distance / 200);
    this.camera.far = distance * 20 + 200;
    this.camera.position.set(...at.pose.position);
    this.camera.up.set(0, 1, 0);
    this.camera.lookAt(...at.pose.target);
    this.camera.updateProjectionMatrix();
    displayColour(this.background, at.backdrop);
    const turn = (at.light.turn * Math.PI) / 180;
    this.scene.environmentRotation.set(0, turn, 0);
    this.scene.environmentIntensity = 0.62 * at.light.strength;
    this.key.intensity = 2 * at.light.strength;
    const azimuth = turn - (40 * Math.PI) / 180;
    this.key.position.set(5 * Math.sin(azimuth), 5, 5 * Math.cos(azimuth));
    this.arrange(frame);
    this.renderer.render(this.scene, this.camera);
  }

  /** Frees what it holds on the graphics device. */
  dispose(): void {
    for (const object of this.ribbons.values()) object.dispose();
    this.ribbons.clear();
    this.studio.dispose();
    this.renderer.dispose();
  }

  private arrange(frame: ViewFrame): void {
    const seen = new Set<string>();
    for (const { id, shape, finish } of frame.ribbons) {
      seen.add(id);
      let object = this.ribbons.get(id);
      if (!object) {
        object = new RibbonObject();
        this.ribbons.set(id, object);
        this.scene.add(object.group);
      }
      object.update(shape, finish, frame.mode);
    }
    for (const [id, object] of this.ribbons) {
      if (seen.has(id)) continue;
      this.scene.remove(object.group);
      object.dispose();
      this.ribbons.delete(id);
    }
  }
}
