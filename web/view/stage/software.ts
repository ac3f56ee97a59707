/** Names of software renderers: of Chromium, of Mesa, and of Windows. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i;

/** Whether a canvas is drawn in software, where each sample of a pixel costs. WebGPU canvases say no. */
export function drawsInSoftware(canvas: HTMLCanvasElement | OffscreenCanvas): boolean {
  const gl = canvas.getContext('webgl2') as WebGL2RenderingContext | null;
  const told = gl?.getExtension('WEBGL_debug_renderer_info');
  return told !== null && told !== undefined && SOFTWARE.test(String(gl!.getParameter(told.UNMASKED_RENDERER_WEBGL)));
}
