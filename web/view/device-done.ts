import type { WebGPURenderer } from 'three/webgpu';

/** What of the renderer's inside is asked here; one of both is there. */
interface Backend {
  readonly gl?: WebGL2RenderingContext;
  readonly device?: { readonly queue: { onSubmittedWorkDone(): Promise<unknown> } };
}

/** Milliseconds between looks at whether the device is done; workers wait no shorter when they wait often. */
const LOOK = 2;

/** Resolves once the graphics device has done what it was given: drawing only hands work over, and returns at once. */
export async function deviceDone(renderer: WebGPURenderer): Promise<void> {
  const { gl, device } = renderer.backend as unknown as Backend;
  if (device) return void (await device.queue.onSubmittedWorkDone());
  const fence = gl?.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
  if (!gl || !fence) return;
  gl.flush();
  while (!gl.isContextLost()) {
    const state = gl.clientWaitSync(fence, 0, 0);
    if (state !== gl.TIMEOUT_EXPIRED) break;
    await new Promise((done) => setTimeout(done, LOOK));
  }
  gl.deleteSync(fence);
}
