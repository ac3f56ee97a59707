const FLOAT = 2;

/** What else a picture tells of its pixels. */
export interface Layer {
  readonly name: string;
  /** One letter each, as many as there are numbers a pixel. */
  readonly channels: string;
  /** Rows from the top. */
  readonly values: Float32Array;
}

/**
 * A picture of light as an OpenEXR file, single precision, not compressed (“OpenEXR File Layout”, Academy
 * Software Foundation).
 *
 * @param values red, green, blue and alpha a pixel, premultiplied, rows from the top
 * @param layers further channels, named `layer.X` as the layout has it
 */
export function writeExr(
  values: Float32Array,
  width: number,
  height: number,
  layers: readonly Layer[] = [],
): Uint8Array<ArrayBuffer> {
  const channels = [{ name: '', channels: 'RGBA', values }, ...layers]
    .flatMap((l) =>
      [...l.channels].map((c, at) => ({
        name: l.name ? `${l.name}.${c}` : c,
        values: l.values,
        at,
        stride: l.channels.length,
      })),
    )
    // By the alphabet, as readers expect them.
    .sort((a, b) => (a.name < b.name ? -1 : 1));
  // The bit for names of more than 31 letters is set where there are some.
  const long = channels.some((c) => c.name.length > 31) ? 4 : 0;
  const header: number[] = [0x76, 0x2f, 0x31, 0x01, 2, long, 0, 0];
  const text = (s: string) => header.push(...[...s].map((c) => c.charCodeAt(0)), 0);
  const bytes = (view: ArrayBufferView) => header.push(...new Uint8Array(view.buffer));
  const attribute = (name: string, type: string, ...data: ArrayBufferView[]) => {
    text(name);
    text(type);
    bytes(Int32Array.of(data.reduce((n, d) => n + d.byteLength, 0)));
    data.forEach(bytes);
  };
  const list = channels.flatMap((c) => [
    Uint8Array.from([...c.name].map((x) => x.charCodeAt(0)).concat(0)),
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
  const row = 4 * channels.length * width;
  const out = new Uint8Array(header.length + height * (8 + 8 + row));
  out.set(header);
  const view = new DataView(out.buffer);
  for (let y = 0; y < height; y++) {
    const at = header.length + 8 * height + y * (8 + row);
    view.setBigUint64(header.length + 8 * y, BigInt(at), true);
    view.setInt32(at, y, true);
    view.setInt32(at + 4, row, true);
    channels.forEach((c, k) => {
      for (let x = 0; x < width; x++)
        view.setFloat32(at + 8 + 4 * (k * width + x), c.values[c.stride * (y * width + x) + c.at], true);
    });
  }
  return out;
}
