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
import { Haze } from './haze';
import { Sharpness } from './sharpness';
import type { Extent } from './extent';
import { rgb, scalar, type Rgb, type Scalar } from './tsl';
import { dimmed, falseColours } from './false-colours';
import { viewTransform } from './view-transform';

/** What a picture is made of besides what stands in the scene. */
export interface PictureSettings {
  readonly camera: CameraAt;
  readonly backdrop: BackdropAt;
  /** Effects, in the order of the list. */
  readonly picture: readonly PictureEffectAt[];
  /** Colours, brightness in stops, or what is sharp. */
  readonly shows: 'colours' | 'stops' | 'sharp';
  /** Half the height of the picture, see halfHeight. */
  readonly half: number;
  /** Leave the backdrop out. */
  readonly seeThrough: boolean;
  /** Share of the picture, across and up, that is delivered. */
  readonly frame: { readonly width: number; readonly height: number };
  readonly air: readonly AirAt[];
  /** Middle and radius of what stands there. */
  extent(): Extent;
  /** Mean light from all round. */
  readonly around: Color;
  /** Something in the scene is looked through, so that what is behind must be there to be seen. */
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
 * The picture in linear light, from being drawn to being shown: drawn in half floats with several
 * samples a pixel and premultiplied alpha, averaged over sub-frames, put before its backdrop, and
 * brought to display values last. The backdrop does not go through the view transform, so that its
 * colour is just the one that was chosen. Nothing is kept from one frame to the next.
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
  /** 1 where the backdrop is part of the picture, 0 where it is see-through there. */
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

  /** @param samples of each pixel and sub-frame: 0 or 4 */
  constructor(
    private readonly renderer: WebGPURenderer,
    private readonly samples: number,
  ) {
    this.light = new RenderTarget(1, 1, {
      type: HalfFloatType,
      samples,
      minFilter: NearestFilter,
      magFilter: NearestFilter,
      // Air is drawn before what stands there, and looks up where that is.
      depthTexture: new DepthTexture(1, 1),
    });
    // A texture of its own from the first: nodes that stand for one and the same are made one as the shader is compiled.
    this.before = texture(new Texture());
    const add = plainMaterial();
    this.newest = texture(new Texture());
    // Not a mix with a share of nothing: what was there before may be endless, and nothing times that is no number.
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
   * Draws a sub-frame and shows the average of it and those before.
   *
   * @param number from 0; 0 begins a new average
   * @param of how many sub-frames there will be at least; with 1 nothing is averaged
   * @param shown whether the average is to be seen, or is only gone on with
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

  /** Linear light of the whole picture as it was last drawn: 4 numbers a pixel, rows from the top. */
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

  /** Linear light of a pixel of the picture as it was last drawn, counted from the lower left or the upper left, as the card does. */
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

  /** What is drawn with the lit air before it, where there is some. */
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

  /**
   * Writes the average so far, with so large a share of the newest light in it; with a share of 1 what was
   * there before does not matter.
   */
  private add(newest: RenderTarget, before: RenderTarget, to: RenderTarget, share: number): void {
    this.newest.value = newest.texture;
    this.before.value = before.texture;
    this.share.value = share;
    this.renderer.setRenderTarget(to);
    this.sumQuad.render(this.renderer);
  }

  private show(result: RenderTarget, { picture: all, shows }: PictureSettings): void {
    this.last = result;
    // What is done to the finished picture would be done to the colours that stand for something else.
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
    // What is behind glass stands in the light already; at edges only what covers them counts.
    const covered = read.rgb.sub(this.backdrop.light().mul(float(1).sub(read.a)));
    // Where only part of a pixel is covered, its light is that of the part; it meets the backdrop as it is seen.
    // A sum of few sub-frames may be below nothing in a corner.
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
    // What adds light and covers nothing, such as a beam, is in the light and not in its alpha.
    if (types.includes('bloom')) {
      const halo = texture(new Texture());
      bloom.push(halo as TextureNode);
      const spill = halo.rgb.mul(this.spill).mul(this.exposure);
      const lit = this.lit(rgb(covered), read.a);
      const glow = viewTransform(rgb(lit.add(spill))).sub(viewTransform(lit));
      shown = rgb(shown.add(glow));
    }
    const material = plainMaterial();
    // Light that spills over nothing covers as much of it as it is bright. What is done to colours as they are shown
    // covers nothing more: it is done to those that are there. The picture is premultiplied.
    const lit = rgb(shown.toVar());
    const bright = max(max(lit.r, lit.g), lit.b);
    const alpha = max(this.backed, max(read.a.min(1), bright.min(1))).toVar();
    const finished = rgb(this.backdrop.dithered(effects.apply(rgb(lit.div(max(alpha, 1e-4)))), read.a));
    material.fragmentNode = vec4(finished.clamp(0, 1).mul(alpha), alpha);
    return { quad: new QuadMesh(material), effects, light, bloom };
  }

  /** The light of the whole pixel: of what covers it, and about that of the backdrop where nothing does. */
  private lit(covered: Rgb, alpha: Scalar): Rgb {
    const shown = this.backdrop.shown().mul(this.backed);
    const ground = shown.mul(shown);
    return rgb(covered.mul(this.exposure).add(ground.mul(float(1).sub(alpha.min(1)))));
  }

  /** The backdrop as light behind everything, without covering anything. */
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
