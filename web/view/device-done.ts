import type { WebGPURenderer } from 'three/webgpu';

/** What of the renderer's inside is asked here; one of both is there. */
interface Backend {
  readonly gl?: WebGL2RenderingContext;
  readonly device?: { readonly queue: { onSubmittedWorkDone(): Promise<unknown> } };
}

/** Milliseconds between looks at whether the device is done; workers wait no shorter when they wait often. */
const LOOK = 2;

/** Drawings that the device may have before it: one that it works at, and one for it to go on with. */
const AHEAD = 2;

/**
 * Keeps count of what the graphics device has still to do: drawing only hands work over, and returns at
 * once. Where drawing is slow, seconds of work would pile up before the device, and the next edit be
 * seen after all of it.
 */
export class DeviceQueue {
  private readonly waiting: (() => Promise<void>)[] = [];
  private readonly backend: Backend;

  constructor(renderer: WebGPURenderer) {
    this.backend = renderer.backend as unknown as Backend;
  }

  /** Whether WebGL's device is gone; that of WebGPU tells it only by itself. */
  get lost(): boolean {
    return this.backend.gl?.isContextLost() ?? false;
  }

  /**
   * Asks the device itself whether it is there: that it has gone is told a moment later, and pictures that were read in
   * between are empty.
   */
  async sound(): Promise<boolean> {
    const { gl, device } = this.backend;
    if (device) await device.queue.onSubmittedWorkDone().catch(() => undefined);
    else if (gl) return !this.lost && answers(gl);
    return true;
  }

  /** Marks the end of a drawing that was handed over. */
  handedOver(): void {
    const { gl, device } = this.backend;
    if (device) {
      const done = device.queue.onSubmittedWorkDone();
      this.waiting.push(async () => void (await done));
    } else if (gl) {
      const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
      gl.flush();
      if (fence) this.waiting.push(() => passed(gl, fence));
    }
  }

  /** Resolves once there is room for another drawing. */
  async room(): Promise<void> {
    while (this.waiting.length >= AHEAD) await this.waiting.shift()!();
  }

  /** Resolves once the device has done all that it was given. */
  async done(): Promise<void> {
    while (this.waiting.length > 0) await this.waiting.shift()!();
  }
}

/** Whether a pixel can be read: what is gone leaves the numbers alone that are there. */
function answers(gl: WebGL2RenderingContext): boolean {
  const bound = gl.getParameter(gl.READ_FRAMEBUFFER_BINDING) as WebGLFramebuffer | null;
  const pixel = Uint8Array.of(1, 2, 3, 4);
  gl.bindFramebuffer(gl.READ_FRAMEBUFFER, null);
  gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
  gl.bindFramebuffer(gl.READ_FRAMEBUFFER, bound);
  return !gl.isContextLost() && pixel.join() !== '1,2,3,4';
}

async function passed(gl: WebGL2RenderingContext, fence: WebGLSync): Promise<void> {
  while (!gl.isContextLost()) {
    if (gl.clientWaitSync(fence, 0, 0) !== gl.TIMEOUT_EXPIRED) break;
    await new Promise((done) => setTimeout(done, LOOK));
  }
  gl.deleteSync(fence);
}
