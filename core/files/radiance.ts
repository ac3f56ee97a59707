import { strFromU8, strToU8 } from 'fflate';
import type { LightPicture } from '../assets/light';
import { MOST_LIGHT_PIXELS } from '../assets/light';
import { FileTrouble } from '../assets/trouble';

/** Narrowest and widest scan line that may be run-length encoded by component. */
const [NARROWEST, WIDEST] = [8, 0x7fff];

/**
 * Reads a Radiance picture (.hdr): RGBE, run-length encoded by component, by pixel, or not at all. G. Ward, “Real
 * Pixels”, Graphics Gems II (1991), and the Radiance reference on picture file formats.
 */
export function readRadiance(bytes: Uint8Array): LightPicture {
  const { width, height, down, right, exposure, at: begins } = readHead(bytes);
  const values = new Float32Array(3 * width * height);
  const line = new Uint8Array(4 * width);
  let at = begins;
  for (let y = 0; y < height; y++) {
    at = readLine(bytes, at, line, width);
    if (at < 0) throw new FileTrouble(`This picture of light breaks off in line ${y + 1} of ${height}; send it again.`);
    const row = down ? y : height - 1 - y;
    for (let x = 0; x < width; x++) {
      const exponent = line[4 * x + 3];
      if (exponent === 0) continue;
      // The centre of the quantisation step that a byte stands for.
      const f = 2 ** (exponent - 136) / exposure;
      const o = 3 * (row * width + (right ? x : width - 1 - x));
      for (let k = 0; k < 3; k++) values[o + k] = line[4 * x + k] === 0 ? 0 : (line[4 * x + k] + 0.5) * f;
    }
  }
  return { width, height, values };
}

interface Head {
  readonly width: number;
  readonly height: number;
  /** Rows from top to bottom, pixels from left to right. */
  readonly down: boolean;
  readonly right: boolean;
  readonly exposure: number;
  readonly at: number;
}

function readHead(bytes: Uint8Array): Head {
  let at = 0;
  const line = (): string => {
    const end = bytes.indexOf(10, at);
    if (end < 0 || end - at > 4096) throw new FileTrouble('This picture of light ends before its size is told.');
    const text = strFromU8(bytes.subarray(at, end), true);
    at = end + 1;
    return text.trim();
  };
  if (!line().startsWith('#?')) throw new FileTrouble('This is not a Radiance picture (.hdr).');
  let exposure = 1;
  for (let text = line(); text !== ''; text = line()) {
    const format = /^FORMAT=(.*)$/.exec(text)?.[1];
    if (format && format !== '32-bit_rle_rgbe')
      throw new FileTrouble(`The picture of light is in the format “${format}”; save it as RGBE.`);
    const e = /^EXPOSURE=(.*)$/.exec(text)?.[1];
    if (e && Number(e) > 0 && Number.isFinite(Number(e))) exposure *= Number(e);
  }
  const size = line();
  const m = /^([-+])Y\s+(\d+)\s+([-+])X\s+(\d+)$/.exec(size);
  if (!m) throw new FileTrouble(`The picture of light says its size as “${size}”; it must be like “-Y 512 +X 1024”.`);
  const [height, width] = [Number(m[2]), Number(m[4])];
  checkSize(width, height);
  return { width, height, down: m[1] === '-', right: m[3] === '+', exposure, at };
}

/** @throws FileTrouble if the picture is empty or too large */
export function checkSize(width: number, height: number): void {
  if (!(width >= 1 && height >= 1)) throw new FileTrouble(`A picture of light of ${width} × ${height} is nothing.`);
  if (width * height > MOST_LIGHT_PIXELS)
    throw new FileTrouble(
      `A picture of light of ${width} × ${height} is more than can be taken in; make it 8192 × 4096 at most.`,
    );
}

/** Reads one scan line of RGBE; returns where the next begins, or −1 if the data ends. */
function readLine(bytes: Uint8Array, at: number, line: Uint8Array, width: number): number {
  if (at + 4 > bytes.length) return -1;
  const encoded =
    bytes[at] === 2 && bytes[at + 1] === 2 && bytes[at + 2] < 128 && bytes[at + 2] * 256 + bytes[at + 3] === width;
  if (!encoded || width < NARROWEST || width > WIDEST) return readPixels(bytes, at, line, width);
  at += 4;
  for (let k = 0; k < 4; k++)
    for (let x = 0; x < width;) {
      const count = bytes[at++];
      const run = count > 128 ? count - 128 : count;
      if (!(run > 0) || x + run > width || at + (count > 128 ? 1 : run) > bytes.length) return -1;
      for (let i = 0; i < run; i++) line[4 * x++ + k] = bytes[count > 128 ? at : at + i];
      at += count > 128 ? 1 : run;
    }
  return at;
}

/** Old format: pixel by pixel; 1, 1, 1 repeats the previous pixel, as often as the fourth byte says. */
function readPixels(bytes: Uint8Array, at: number, line: Uint8Array, width: number): number {
  let shift = 0;
  for (let x = 0; x < width; at += 4) {
    if (at + 4 > bytes.length) return -1;
    const pixel = bytes.subarray(at, at + 4);
    if (pixel[0] !== 1 || pixel[1] !== 1 || pixel[2] !== 1) {
      line.set(pixel, 4 * x++);
      shift = 0;
      continue;
    }
    const run = pixel[3] * 2 ** shift;
    if (x === 0 || x + run > width || shift > 16) return -1;
    for (let i = 0; i < run; i++, x++) line.copyWithin(4 * x, 4 * x - 4, 4 * x);
    shift += 8;
  }
  return at;
}

/** Writes a Radiance picture with run lengths by component. Values stay within 1 %. */
export function writeRadiance({ width, height, values }: LightPicture): Uint8Array {
  const head = strToU8(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
  const rle = width >= NARROWEST && width <= WIDEST;
  // In the worst case one extra byte for every 128.
  const out = new Uint8Array(head.length + height * (4 + 4 * width + 4 * Math.ceil(width / 128)));
  out.set(head);
  let at = head.length;
  const line = new Uint8Array(4 * width);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) toRgbe(values, 3 * (y * width + x), line, 4 * x);
    if (!rle) {
      out.set(line, at);
      at += line.length;
      continue;
    }
    out.set([2, 2, width >> 8, width & 255], at);
    at += 4;
    for (let k = 0; k < 4; k++) at = writeRuns(line, k, width, out, at);
  }
  return out.slice(0, at);
}

function toRgbe(values: Float32Array, from: number, line: Uint8Array, to: number): void {
  const most = Math.max(values[from], values[from + 1], values[from + 2]);
  if (!(most > 1e-32)) {
    line.fill(0, to, to + 4);
    return;
  }
  const exponent = Math.floor(Math.log2(most)) + 1;
  const f = 2 ** (8 - exponent);
  for (let k = 0; k < 3; k++) line[to + k] = Math.min(255, Math.floor(values[from + k] * f));
  line[to + 3] = exponent + 128;
}

function writeRuns(line: Uint8Array, k: number, width: number, out: Uint8Array, at: number): number {
  const same = (x: number): number => {
    let n = 1;
    while (x + n < width && n < 127 && line[4 * (x + n) + k] === line[4 * x + k]) n++;
    return n;
  };
  for (let x = 0; x < width;) {
    const run = same(x);
    if (run >= 4) {
      out[at++] = 128 + run;
      out[at++] = line[4 * x + k];
      x += run;
      continue;
    }
    let end = x + run;
    while (end < width && end - x < 128 && same(end) < 4) end++;
    end = Math.min(end, x + 128);
    out[at++] = end - x;
    for (; x < end; x++) out[at++] = line[4 * x + k];
  }
  return at;
}
