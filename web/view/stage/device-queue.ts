import type { WebGPURenderer } from 'three/webgpu';

/** Private parts of the renderer that are needed; one of both exists. */
interface Backend {
  readonly gl?: WebGL2RenderingContext;
  readonly device?: { readonly queue: { onSubmittedWorkDone(): Promise<unknown> } };
}

/** Milliseconds between polls; workers cannot wait for less. */
const LOOK = 2;

/** Draw calls that may be queued: one being executed, and one to follow. */
const AHEAD = 2;

/**
 * Counts the device's queued draw calls: drawing only submits work and returns at once. With slow drawing, seconds of
 * work would pile up, and the next edit would be visible after all of it.
 */
export class DeviceQueue {
  private readonly waiting: (() => Promise<void>)[] = [];
  private readonly backend: Backend;

  constructor(renderer: WebGPURenderer) {
    this.backend = renderer.backend as unknown as Backend;
  }

  /** Whether WebGL's device is lost; WebGPU reports that by itself. */
  get lost(): boolean {
    return this.backend.gl?.isContextLost() ?? false;
  }

  /**
   * Asks the device itself whether it is alive: a loss is reported a moment later, and pictures read in between are
   * empty.
   */
  async sound(): Promise<boolean> {
    const { gl, device } = this.backend;
    if (device) await device.queue.onSubmittedWorkDone().catch(() => undefined);
    else if (gl) return !this.lost && answers(gl);
    return true;
  }

  /** Marks the end of a submitted draw call. */
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

  /** Resolves once there is room for another draw call. */
  async room(): Promise<void> {
    while (this.waiting.length >= AHEAD) await this.waiting.shift()!();
  }

  /** Resolves once the device is idle. */
  async done(): Promise<void> {
    while (this.waiting.length > 0) await this.waiting.shift()!();
  }
}

/** Whether a pixel can be read: a lost device leaves the buffer untouched. */
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
