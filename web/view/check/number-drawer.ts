import { vec4 } from 'three/tsl';
import {
  FloatType,
  LinearSRGBColorSpace,
  NearestFilter,
  NodeMaterial,
  QuadMesh,
  RenderTarget,
  WebGPURenderer,
} from 'three/webgpu';
import { drawsInSoftware } from '../stage/software';
import type { Scalar } from '../surfaces/tsl';

/** Points each way. */
const SIZE = 48;

/** Computes numbers on this machine's graphics card, to be compared with core's. */
export class NumberDrawer {
  private readonly target = new RenderTarget(SIZE, SIZE, {
    type: FloatType,
    minFilter: NearestFilter,
    magFilter: NearestFilter,
    depthBuffer: false,
  });

  private constructor(private readonly renderer: WebGPURenderer) {}

  static async create(): Promise<NumberDrawer> {
    const canvas = document.createElement('canvas');
    const renderer = new WebGPURenderer({ canvas, forceWebGL: drawsInSoftware(document.createElement('canvas')) });
    await renderer.init();
    renderer.outputColorSpace = LinearSRGBColorSpace;
    return new NumberDrawer(renderer);
  }

  /** A number for each point: SIZE rows of SIZE, at `uv` from 0 to 1 both ways. */
  async draw(value: Scalar): Promise<Float32Array> {
    const material = new NodeMaterial();
    material.fragmentNode = vec4(value, value, value, 1);
    material.depthTest = material.toneMapped = false;
    this.renderer.setRenderTarget(this.target);
    new QuadMesh(material).render(this.renderer);
    const pixels = (await this.renderer.readRenderTargetPixelsAsync(this.target, 0, 0, SIZE, SIZE)) as Float32Array;
    material.dispose();
    return Float32Array.from({ length: SIZE ** 2 }, (_, i) => pixels[4 * i]);
  }

  dispose(): void {
    this.target.dispose();
    void this.renderer.dispose();
  }
}

/**
 * Compares numbers of a card with exact ones.
 *
 * @param exact at points from 0 to 1 both ways
 * @param limit the tolerance
 */
export function comparedNumbers(
  drawn: Float32Array,
  exact: (u: number, v: number) => number,
  limit: number,
): { readonly difference: number; readonly share: number } {
  // Cards differ in the order of rows: the better of both counts.
  const ways = [false, true].map((upsideDown) => {
    let difference = 0;
    let over = 0;
    for (let j = 0; j < SIZE; j++)
      for (let i = 0; i < SIZE; i++) {
        const row = upsideDown ? SIZE - 1 - j : j;
        const d = Math.abs(drawn[row * SIZE + i] - exact((i + 0.5) / SIZE, (j + 0.5) / SIZE));
        difference = Math.max(difference, d);
        if (!(d <= limit)) over++;
      }
    return { difference, share: over / SIZE ** 2 };
  });
  return ways[0].share <= ways[1].share ? ways[0] : ways[1];
}
