/** Makes a bitmap at once: createImageBitmap resolves after the next picture, which may take long. */
export function bitmapOf(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number): ImageBitmap {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.transferToImageBitmap();
}
