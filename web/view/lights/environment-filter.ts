import {
  PMREMGenerator,
  type CubeRenderTarget,
  type DataTexture,
  type Texture,
  type WebGPURenderer,
} from 'three/webgpu';

/**
 * Edge in pixels of the cube map that environments are blurred into by the processor: the library takes 256 at least,
 * which costs four seconds there; 128 cost two, 64 less than one.
 */
export const CUBE_EDGE = { small: 64, usual: 128 } as const;

/** The part of the library's generator that decides its size. */
interface Sized {
  _cubeSize: number;
  _setSize: (size: number) => void;
}

/**
 * Blurs environments for rough surfaces on the processor. A graphics card does this in no time, and the library sees to
 * it.
 */
export class EnvironmentFilter {
  private readonly generator: PMREMGenerator;
  private readonly made = new WeakMap<Texture, CubeRenderTarget>();
  private edge: number = CUBE_EDGE.usual;

  constructor(renderer: WebGPURenderer) {
    this.generator = new PMREMGenerator(renderer);
    const sized = this.generator as unknown as Sized;
    sized._setSize = () => (sized._cubeSize = this.edge);
  }

  /** Edge in pixels, from the next picture on. */
  setEdge(edge: number): void {
    this.edge = edge;
  }

  of(surround: DataTexture): Texture {
    let blurred = this.made.get(surround);
    if (blurred?.width === this.edge) return blurred.texture;
    if (!blurred) surround.addEventListener('dispose', () => this.made.get(surround)?.dispose());
    blurred?.dispose();
    blurred = this.generator.fromEquirectangular(surround);
    this.made.set(surround, blurred);
    return blurred.texture;
  }
}
