import { LEVELS, widerShare } from '@maypole/core/develop/bloom';
import { float, max, texture, uniform, uv, vec2, vec3, vec4 } from 'three/tsl';
import {
  AdditiveBlending,
  HalfFloatType,
  LinearFilter,
  NodeMaterial,
  QuadMesh,
  RenderTarget,
  Texture,
  Vector2,
  type WebGPURenderer,
} from 'three/webgpu';

/**
 * Bloom: what is brighter than a limit is halved repeatedly with a filter of thirteen taps that does not flicker, and
 * added up on the way back with a tent of nine (J. Jimenez, Next Generation Post Processing in Call of Duty, SIGGRAPH
 * 2014 course notes).
 */
export class Bloom {
  private readonly levels: RenderTarget[] = [];
  private readonly source = texture(new Texture());
  private readonly texel = uniform(new Vector2(1, 1));
  private readonly from = uniform(1);
  private readonly share = uniform(1);
  private readonly bright: QuadMesh;
  private readonly halve: QuadMesh;
  private readonly widen: QuadMesh;

  constructor(private readonly renderer: WebGPURenderer) {
    for (let i = 0; i < LEVELS; i++)
      this.levels.push(
        new RenderTarget(1, 1, {
          type: HalfFloatType,
          depthBuffer: false,
          minFilter: LinearFilter,
          magFilter: LinearFilter,
        }),
      );
    const at = (x: number, y: number) => this.source.sample(uv().add(this.texel.mul(vec2(x, y)))).rgb;
    const box = (x: number, y: number) =>
      at(x - 1, y - 1)
        .add(at(x + 1, y - 1))
        .add(at(x - 1, y + 1))
        .add(at(x + 1, y + 1))
        .mul(0.25);
    const thirteen = box(0, 0)
      .mul(0.5)
      .add(box(-1, -1).mul(0.125))
      .add(box(1, -1).mul(0.125))
      .add(box(-1, 1).mul(0.125))
      .add(box(1, 1).mul(0.125));
    // A single pixel may be thousands of times as bright as its neighbours; its halo is clamped to what is visible.
    const plain = max(thirteen.min(vec3(64)), vec3(0));
    const brightness = max(max(plain.r, plain.g), plain.b);
    const above = max(brightness.sub(this.from), float(0)).div(max(brightness, float(1e-4)));
    const tent = at(-1, -1)
      .add(at(1, -1))
      .add(at(-1, 1))
      .add(at(1, 1))
      .add(at(0, -1).add(at(0, 1)).add(at(-1, 0)).add(at(1, 0)).mul(2))
      .add(at(0, 0).mul(4))
      .mul(1 / 16);
    this.bright = quad(vec4(plain.mul(above), 1));
    this.halve = quad(vec4(thirteen, 1));
    this.widen = quad(vec4(tent.mul(this.share), 1));
    (this.widen.material as NodeMaterial).blending = AdditiveBlending;
    (this.widen.material as NodeMaterial).transparent = true;
  }

  /** The light to add to the picture, after `draw`. */
  get light(): Texture {
    return this.levels[0].texture;
  }

  setSize(width: number, height: number): void {
    this.levels.forEach((l, i) => l.setSize(Math.max(1, width >> (i + 1)), Math.max(1, height >> (i + 1))));
  }

  /** @param spread 0…1, share of each wider halo that is added to the narrower one */
  draw(of: RenderTarget, from: number, spread: number): void {
    const { renderer, levels } = this;
    this.from.value = from;
    const pass = (mesh: QuadMesh, source: RenderTarget, to: RenderTarget) => {
      this.source.value = source.texture;
      this.texel.value.set(1 / source.width, 1 / source.height);
      renderer.setRenderTarget(to);
      mesh.render(renderer);
    };
    const { autoClear } = renderer;
    renderer.autoClear = false;
    pass(this.bright, of, levels[0]);
    for (let i = 1; i < LEVELS; i++) pass(this.halve, levels[i - 1], levels[i]);
    for (let i = LEVELS - 1; i > 0; i--) {
      this.share.value = widerShare(spread);
      pass(this.widen, levels[i], levels[i - 1]);
    }
    renderer.autoClear = autoClear;
  }

  dispose(): void {
    for (const l of this.levels) l.dispose();
    for (const q of [this.bright, this.halve, this.widen]) (q.material as NodeMaterial).dispose();
  }
}

function quad(fragment: NonNullable<NodeMaterial['fragmentNode']>): QuadMesh {
  const material = new NodeMaterial();
  material.depthTest = false;
  material.depthWrite = false;
  material.toneMapped = false;
  material.fragmentNode = fragment;
  return new QuadMesh(material);
}
