/** Numbers of one pixel, and the names they have in a file; OpenEXR wants them by the alphabet. */
const CHANNELS = ['A', 'B', 'G', 'R'] as const;
const FLOAT = 2;

/**
 * A picture of light as an OpenEXR file, single precision, not compressed (“OpenEXR File Layout”, Academy
 * Software Foundation).
 *
 * @param values red, green, blue and alpha a pixel, premultiplied, rows from the top
 */
export function writeExr(values: Float32Array, width: number, height: number): Uint8Array<ArrayBuffer> {
  const header: number[] = [0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0];
  const text = (s: string) => header.push(...[...s].map((c) => c.charCodeAt(0)), 0);
  const bytes = (view: ArrayBufferView) => header.push(...new Uint8Array(view.buffer));
  const attribute = (name: string, type: string, ...data: ArrayBufferView[]) => {
    text(name);
    text(type);
    bytes(Int32Array.of(data.reduce((n, d) => n + d.byteLength, 0)));
    data.forEach(bytes);
  };
  const list = CHANNELS.flatMap((c) => [
    Uint8Array.of(c.charCodeAt(0), 0),
    Int32Array.of(FLOAT),
    Uint8Array.of(0, 0, 0, 0),
    Int32Array.of(1, 1),
  ]);
  attribute('channels', 'chlist', ...list, Uint8Array.of(0));
  attribute('compression', 'compression', Uint8Array.of(0));
  const window = Int32Array.of(0, 0, width - 1, height - 1);
  attribute('dataWindow', 'box2i', window);
  attribute('displayWindow', 'box2i', window);
  attribute('lineOrder', 'lineOrder', Uint8Array.of(0));
  attribute('pixelAspectRatio', 'float', Float32Array.of(1));
  attribute('screenWindowCenter', 'v2f', Float32Array.of(0, 0));
  attribute('screenWindowWidth', 'float', Float32Array.of(1));
  header.push(0);
  const row = 4 * CHANNELS.length * width;
  const out = new Uint8Array(header.length + height * (8 + 8 + row));
  out.set(header);
  const view = new DataView(out.buffer);
  for (let y = 0; y < height; y++) {
    const at = header.length + 8 * height + y * (8 + row);
    view.setBigUint64(header.length + 8 * y, BigInt(at), true);
    view.setInt32(at, y, true);
    view.setInt32(at + 4, row, true);
    CHANNELS.forEach((c, k) => {
      const from = 'RGBA'.indexOf(c);
      for (let x = 0; x < width; x++)
        view.setFloat32(at + 8 + 4 * (k * width + x), values[4 * (y * width + x) + from], true);
    });
  }
  return out;
}
