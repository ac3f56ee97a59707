import { bloomGain } from '@maypole/core/develop/bloom';
import type { AirAt, BackdropAt, CameraAt, PictureEffectAt } from '@maypole/core/scene/kind';
import { float, max, mix, positionGeometry, screenUV, select, texture, uniform, vec4 } from 'three/tsl';
import {
  DataUtils,
  DepthTexture,
  FloatType,
  HalfFloatType,
  Mesh,
  NearestFilter,
  NoBlending,
  NodeMaterial,
  PlaneGeometry,
  QuadMesh,
  RenderTarget,
  Texture,
  WebGLCoordinateSystem,
  type Camera,
  type Color,
  type OrthographicCamera,
  type PerspectiveCamera,
  type Scene,
  type TextureNode,
  type WebGPURenderer,
} from 'three/webgpu';
import { BackdropNodes } from './backdrop';
import { Bloom } from './bloom';
import { frame, PictureEffects } from './picture-effects';
import { Haze } from '../lights/haze';
import { Sharpness } from './sharpness';
import type { Extent } from '../stage/extent';
import { rgb, scalar, type Rgb, type Scalar } from '../surfaces/tsl';
import { dimmed, falseColours } from './false-colours';
import { viewTransform } from './view-transform';

/** Settings of a picture besides its scene. */
interface PictureSettings {
  readonly camera: CameraAt;
  readonly backdrop: BackdropAt;
  /** Effects, in the order of the list. */
  readonly picture: readonly PictureEffectAt[];
  /** Colours, exposure in stops, or focus. */
  readonly shows: 'colours' | 'stops' | 'sharp';
  /** Half the height of the picture, see halfHeight. */
  readonly half: number;
  /** Leaves the backdrop out. */
  readonly seeThrough: boolean;
  /** Share of the picture, across and up, that is delivered. */
  readonly frame: { readonly width: number; readonly height: number };
  readonly air: readonly AirAt[];
  /** Bounding sphere of the scene. */
  extent(): Extent;
  /** Mean radiance of the environment. */
  readonly around: Color;
  /** Something in the scene is transparent, so that the backdrop must be there to be seen. */
  readonly glass: boolean;
}

/** What is compiled for one list of effects. */
interface Show {
  readonly quad: QuadMesh;
  readonly effects: PictureEffects;
  /** Texture nodes that read the light, and those that read the bloom. */
  readonly light: TextureNode[];
  readonly bloom: TextureNode[];
}

/**
 * The picture from drawing to display: rendered as linear light in half floats with multisampling and premultiplied
 * alpha, averaged over sub-frames, composited over its backdrop, and tone mapped last. The backdrop bypasses the view
 * transform, so that its colour is exact. Nothing is kept from one frame to the next.
 */
export class Picture {
  private readonly light: RenderTarget;
  private sums: readonly [RenderTarget, RenderTarget] | null = null;
  private bloom: Bloom | null = null;
  private readonly shows = new Map<string, Show>();
  private readonly backdrop = new BackdropNodes();
  private readonly behindQuad: Mesh;
  private readonly exposure = uniform(1);
  private readonly spill = uniform(0);
  /** 1 with the backdrop, 0 for transparency. */
  private readonly backed = uniform(1);
  private readonly before: TextureNode;
  private readonly depth = texture(new Texture()) as TextureNode;
  private readonly sharpness = new Sharpness();
  private readonly newest: TextureNode;
  private haze: Haze | null = null;
  private readonly share = uniform(1);
  private readonly sumQuad: QuadMesh;
  private size: readonly [number, number] = [1, 1];
  private last: RenderTarget;

  /** @param samples multisampling: 0 or 4 */
  constructor(
    private readonly renderer: WebGPURenderer,
    private readonly samples: number,
  ) {
    this.light = new RenderTarget(1, 1, {
      type: HalfFloatType,
      samples,
      minFilter: NearestFilter,
      magFilter: NearestFilter,
      // Haze is drawn in front of the scene and reads its depth.
      depthTexture: new DepthTexture(1, 1),
    });
    // A texture of its own from the start: nodes of the same texture are merged when the shader is compiled.
    this.before = texture(new Texture());
    const add = plainMaterial();
    this.newest = texture(new Texture());
    // Not a mix with a share of 0: the previous value may be infinite, and 0 times that is NaN.
    add.fragmentNode = select(this.share.equal(1), this.newest, mix(this.before, this.newest, this.share));
    this.sumQuad = new QuadMesh(add);
    this.last = this.light;
    this.behindQuad = this.makeBehind();
  }

  setSize(width: number, height: number): void {
    this.size = [width, height];
    this.light.setSize(width, height);
    this.sums?.forEach((t) => t.setSize(width, height));
    this.bloom?.setSize(width, height);
  }

  /**
   * Draws a sub-frame and shows the average so far.
   *
   * @param number from 0; 0 starts a new average
   * @param of least number of sub-frames to come; with 1 nothing is averaged
   * @param shown whether the average is shown, or only accumulated
   */
  draw(
    scene: Scene,
    camera: PerspectiveCamera | OrthographicCamera,
    settings: PictureSettings,
    number = 0,
    of = 1,
    shown = true,
  ): void {
    const { renderer } = this;
    this.exposure.value = settings.camera.exposure;
    this.backed.value = settings.seeThrough ? 0 : 1;
    this.backdrop.fill(settings.backdrop, settings.glass ? 1 / settings.camera.exposure : 0, this.size, settings.frame);
    if (settings.glass) scene.add(this.behindQuad);
    else scene.remove(this.behindQuad);
    renderer.setRenderTarget(this.light);
    renderer.setClearColor('#000000', 0);
    renderer.render(scene, camera);
    this.depth.value = this.light.depthTexture!;
    if (settings.shows === 'sharp') this.sharpness.fill(settings.camera, camera, settings.half);
    const drawn = this.withAir(scene, camera, settings, number);
    if (of === 1) return this.show(drawn, settings);
    const sums = this.averages();
    const [from, to] = number % 2 ? sums : [sums[1], sums[0]];
    this.add(drawn, from, to, 1 / (number + 1));
    this.last = to;
    if (shown) this.show(to, settings);
  }

  /** Linear light of the whole picture as last drawn: 4 numbers per pixel, rows from the top. */
  async lightIn(width: number, height: number): Promise<Float32Array> {
    const pixels = await this.renderer.readRenderTargetPixelsAsync(this.last, 0, 0, width, height);
    const plain = pixels instanceof Float32Array;
    const out = new Float32Array(4 * width * height);
    // WebGL counts rows from below.
    const flipped = this.renderer.coordinateSystem === WebGLCoordinateSystem;
    for (let y = 0; y < height; y++)
      for (let i = 0; i < 4 * width; i++) {
        const from = 4 * width * (flipped ? height - 1 - y : y) + i;
        out[4 * width * y + i] = plain ? pixels[from] : DataUtils.fromHalfFloat((pixels as Uint16Array)[from]);
      }
    return out;
  }

  /** Linear light of a pixel as last drawn, counted from the lower or upper left, as the card does. */
  async lightAt(x: number, y: number): Promise<readonly [number, number, number]> {
    const pixels = await this.renderer.readRenderTargetPixelsAsync(this.last, x, y, 1, 1);
    const number = (k: number) =>
      pixels instanceof Float32Array ? pixels[k] : DataUtils.fromHalfFloat((pixels as Uint16Array)[k]);
    return [number(0), number(1), number(2)];
  }

  dispose(): void {
    this.light.dispose();
    this.sums?.forEach((t) => t.dispose());
    this.bloom?.dispose();
    this.haze?.dispose();
    for (const { quad } of this.shows.values()) (quad.material as NodeMaterial).dispose();
    (this.sumQuad.material as NodeMaterial).dispose();
    (this.behindQuad.material as NodeMaterial).dispose();
    this.behindQuad.geometry.dispose();
  }

  /** The scene with haze in front of it, if any. */
  private withAir(
    scene: Scene,
    camera: Camera,
    { air, extent, around }: PictureSettings,
    number: number,
  ): RenderTarget {
    const lit = air.find((a) => a.type === 'haze');
    if (!lit) return this.light;
    this.haze ??= new Haze(this.renderer, this.samples > 0 ? 16 : 6);
    this.haze.setSize(...this.size);
    return this.haze.draw(scene, camera, this.light, lit, extent(), around, number);
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

  /** Blends the newest light into the average; at a share of 1 the previous contents do not matter. */
  private add(newest: RenderTarget, before: RenderTarget, to: RenderTarget, share: number): void {
    this.newest.value = newest.texture;
    this.before.value = before.texture;
    this.share.value = share;
    this.renderer.setRenderTarget(to);
    this.sumQuad.render(this.renderer);
  }

  private show(result: RenderTarget, { picture: all, shows }: PictureSettings): void {
    this.last = result;
    // Picture effects do not apply to false colours.
    const picture = shows === 'colours' ? all : [];
    const types = picture.map((e) => e.type);
    const key = shows === 'colours' ? types.join() : shows;
    let show = this.shows.get(key);
    if (!show) this.shows.set(key, (show = this.makeShow(types, shows)));
    show.effects.fill(picture);
    frame.aspect.value = this.size[0] / this.size[1];
    frame.scale.value = this.size[1] / 1000;
    const bloom = picture.find((e) => e.type === 'bloom');
    if (bloom) {
      this.bloom ??= new Bloom(this.renderer);
      this.bloom.setSize(...this.size);
      this.bloom.draw(result, bloom.from / this.exposure.value, bloom.spread);
      this.spill.value = bloom.amount / bloomGain(bloom.spread);
      for (const node of show.bloom) node.value = this.bloom.light;
    }
    for (const node of show.light) node.value = result.texture;
    this.renderer.setRenderTarget(null);
    show.quad.render(this.renderer);
  }

  private makeShow(types: readonly PictureEffectAt['type'][], shows: PictureSettings['shows']): Show {
    const effects = new PictureEffects(types);
    const [light, bloom]: [TextureNode[], TextureNode[]] = [[], []];
    const read = effects.read(new Texture(), (node) => light.push(node as TextureNode));
    // The light behind glass includes the backdrop; at edges only the covering part counts.
    const covered = read.rgb.sub(this.backdrop.light().mul(float(1).sub(read.a)));
    // In a partly covered pixel, tone mapping applies to the covering part, which is then composited as seen. A sum of
    // few sub-frames may be negative in a corner.
    const own = covered
      .div(max(read.a, float(1e-4)))
      .mul(this.exposure)
      .max(0);
    const behind = rgb(this.backdrop.shown().mul(this.backed));
    const told = {
      colours: () => mix(behind, viewTransform(rgb(own)), read.a.min(1)),
      stops: () => mix(dimmed(behind), falseColours(rgb(own)), read.a.min(1)),
      sharp: () =>
        mix(
          dimmed(behind),
          this.sharpness.colours(viewTransform(rgb(own)), scalar(this.depth.sample(screenUV).r)),
          read.a.min(1),
        ),
    };
    let shown = rgb(told[shows]());
    // Additive light, such as a beam, is in the colour and not in its alpha.
    if (types.includes('bloom')) {
      const halo = texture(new Texture());
      bloom.push(halo as TextureNode);
      const spill = halo.rgb.mul(this.spill).mul(this.exposure);
      const lit = this.lit(rgb(covered), read.a);
      const glow = viewTransform(rgb(lit.add(spill))).sub(viewTransform(lit));
      shown = rgb(shown.add(glow));
    }
    const material = plainMaterial();
    // Bloom over nothing covers as much as it is bright. Effects on display values cover nothing more. The picture is
    // premultiplied.
    const lit = rgb(shown.toVar());
    const bright = max(max(lit.r, lit.g), lit.b);
    const alpha = max(this.backed, max(read.a.min(1), bright.min(1))).toVar();
    const finished = rgb(this.backdrop.dithered(effects.apply(rgb(lit.div(max(alpha, 1e-4)))), read.a));
    material.fragmentNode = vec4(finished.clamp(0, 1).mul(alpha), alpha);
    return { quad: new QuadMesh(material), effects, light, bloom };
  }

  /** Light of the whole pixel: of what covers it, and approximately that of the backdrop elsewhere. */
  private lit(covered: Rgb, alpha: Scalar): Rgb {
    const shown = this.backdrop.shown().mul(this.backed);
    const ground = shown.mul(shown);
    return rgb(covered.mul(this.exposure).add(ground.mul(float(1).sub(alpha.min(1)))));
  }

  /** The backdrop as light behind everything, without coverage. */
  private makeBehind(): Mesh {
    const material = plainMaterial();
    material.vertexNode = vec4(positionGeometry.xy, 1, 1);
    material.fragmentNode = vec4(this.backdrop.light(), 0);
    material.blending = NoBlending;
    const mesh = new Mesh(new PlaneGeometry(2, 2), material);
    mesh.frustumCulled = false;
    mesh.renderOrder = -1e6;
    return mesh;
  }
}

function plainMaterial(): NodeMaterial {
  const material = new NodeMaterial();
  material.depthTest = false;
  material.depthWrite = false;
  material.toneMapped = false;
  return material;
}
