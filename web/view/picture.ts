import { float, max, mix, select, texture, uniform, vec4 } from 'three/tsl';
import {
  Color,
  FloatType,
  HalfFloatType,
  NearestFilter,
  NodeMaterial,
  QuadMesh,
  RenderTarget,
  Texture,
  type Camera,
  type Scene,
  type TextureNode,
  type WebGPURenderer,
} from 'three/webgpu';
import { viewTransform } from './view-transform';

/**
 * The picture in linear light, from being drawn to being shown: drawn in half floats with several
 * samples a pixel and premultiplied alpha, averaged over sub-frames, put before its backdrop, and
 * brought to display values last. The backdrop does not go through the view transform, so that its
 * colour is just the one that was chosen. Nothing is kept from one frame to the next.
 */
export class Picture {
  private readonly light: RenderTarget;
  private sums: readonly [RenderTarget, RenderTarget] | null = null;
  private readonly backdrop = uniform(new Color());
  private readonly shown: TextureNode;
  private readonly shownQuad: QuadMesh;
  private readonly before: TextureNode;
  private readonly share = uniform(1);
  private readonly sumQuad: QuadMesh;
  private size: readonly [number, number] = [1, 1];

  /** @param samples of each pixel and sub-frame: 0 or 4 */
  constructor(
    private readonly renderer: WebGPURenderer,
    samples: number,
  ) {
    this.light = new RenderTarget(1, 1, {
      type: HalfFloatType,
      samples,
      minFilter: NearestFilter,
      magFilter: NearestFilter,
    });
    this.shown = texture(this.light.texture);
    // A texture of its own from the first: nodes that stand for one and the same are made one as the shader is compiled.
    this.before = texture(new Texture());
    const show = plainMaterial();
    const light = this.shown;
    // Where only part of a pixel is covered, its light is that of the part; it meets the backdrop as it is seen.
    const own = light.rgb.div(max(light.a, float(1e-4)));
    show.fragmentNode = vec4(mix(this.backdrop, viewTransform(own as never), light.a), 1);
    this.shownQuad = new QuadMesh(show);
    const add = plainMaterial();
    const newest = texture(this.light.texture);
    // Not a mix with a share of nothing: what was there before may be endless, and nothing times that is no number.
    add.fragmentNode = select(this.share.equal(1), newest, mix(this.before, newest, this.share));
    this.sumQuad = new QuadMesh(add);
  }

  setSize(width: number, height: number): void {
    this.size = [width, height];
    this.light.setSize(width, height);
    this.sums?.forEach((t) => t.setSize(width, height));
  }

  /**
   * Draws a sub-frame and shows the average of it and those before.
   *
   * @param number from 0; 0 begins a new average
   * @param of how many sub-frames there will be at least; with 1 nothing is averaged
   * @param backdrop '#rrggbb', shown as it is
   */
  draw(scene: Scene, camera: Camera, backdrop: string, number = 0, of = 1): void {
    const { renderer } = this;
    // Display values are written as they are; the colour class would take them for sRGB and make light of them.
    this.backdrop.value.set(backdrop).convertLinearToSRGB();
    renderer.setRenderTarget(this.light);
    renderer.setClearColor('#000000', 0);
    renderer.render(scene, camera);
    if (of === 1) return this.show(this.light);
    const sums = this.averages();
    const [from, to] = number % 2 ? sums : [sums[1], sums[0]];
    this.add(from, to, 1 / (number + 1));
    this.show(to);
  }

  dispose(): void {
    this.light.dispose();
    this.sums?.forEach((t) => t.dispose());
    for (const quad of [this.shownQuad, this.sumQuad]) (quad.material as NodeMaterial).dispose();
  }

  private averages(): readonly [RenderTarget, RenderTarget] {
    if (!this.sums) {
      const make = () =>
        new RenderTarget(this.size[0], this.size[1], {
          type: FloatType,
          depthBuffer: false,
          minFilter: NearestFilter,
          magFilter: NearestFilter,
        });
      this.sums = [make(), make()];
    }
    return this.sums;
  }

  /** Writes the average so far, with so large a share of the newest light in it; with a share of 1 what was there before does not matter. */
  private add(before: RenderTarget, to: RenderTarget, share: number): void {
    this.before.value = before.texture;
    this.share.value = share;
    this.renderer.setRenderTarget(to);
    this.sumQuad.render(this.renderer);
  }

  private show(result: RenderTarget): void {
    this.shown.value = result.texture;
    this.renderer.setRenderTarget(null);
    this.shownQuad.render(this.renderer);
  }
}

function plainMaterial(): NodeMaterial {
  const material = new NodeMaterial();
  material.depthTest = false;
  material.depthWrite = false;
  material.toneMapped = false;
  return material;
}
