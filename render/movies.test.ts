import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { encode as encodePng } from 'fast-png';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { decodePng, eightBits } from './files/png';
import { deliverOutput } from './deliver';
import { pixels as inForm } from './outputs/movie';
import { orderOf, testLoop, type TestLoop } from './fixtures/loop';

let loop: TestLoop;
beforeAll(() => {
  loop = testLoop();
});
afterAll(() => rmSync(loop.folder, { recursive: true, force: true }));

/** What ffprobe says of the first stream of a file. */
function probed(file: string, ...more: string[]): Record<string, string> {
  const out = execFileSync('/usr/bin/ffprobe', [
    '-v',
    'error',
    '-count_frames',
    '-show_streams',
    ...more,
    '-of',
    'default',
    file,
  ]);
  return Object.fromEntries(
    out
      .toString()
      .split('\n')
      .filter((l) => l.includes('='))
      .map((l) => [l.slice(0, l.indexOf('=')), l.slice(l.indexOf('=') + 1)]),
  );
}

/** Pixels of a file as ffmpeg reads it, red, green, blue and alpha of 8 bits, one picture after the other. */
function pixels(file: string, ...before: string[]): Buffer {
  return execFileSync(
    '/usr/bin/ffmpeg',
    [
      ...['-v', 'error', ...before, '-i', file],
      ...['-fps_mode', 'passthrough', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'],
    ],
    { maxBuffer: 1e9 },
  );
}

describe('movies, as ffprobe (FFmpeg) reads them', () => {
  it.each([
    ['mp4', 'h264', 'yuv420p'],
    ['hevc', 'hevc', 'yuv420p10le'],
    ['webm', 'vp9', 'yuv420p'],
    ['av1', 'av1', 'yuv420p10le'],
    ['prores', 'prores', 'yuva444p12le'],
  ])('%s has the exact count, rate, size and colour tags', async (kind, codec, form) => {
    const { files, report } = await deliverOutput(orderOf(loop, kind));
    const s = probed(path.join(loop.folder, files[0].name));
    expect(s).toMatchObject({
      codec_name: codec,
      pix_fmt: form,
      width: '96',
      height: '64',
      nb_read_frames: '24',
      r_frame_rate: '25/1',
      color_space: 'bt709',
      color_transfer: 'bt709',
      color_primaries: 'bt709',
      color_range: 'tv',
    });
    expect(report.facts.filter((f) => f.wanted)).toEqual([]);
    expect(report.sound, report.words).toBe(true);
    expect(files[0].bytes).toBeGreaterThan(500);
    expect(files[0].sha256).toMatch(/^[0-9a-f]{64}$/);
  });
  it.each([
    [23.976, '24000/1001', 24],
    [29.97, '30000/1001', 24],
    [24, '24/1', 24],
  ])('%s fps is %s to the letter', async (fps, rate, frames) => {
    const other = { ...loop, piece: { ...loop.piece, loop: { frames, fps } } };
    for (const kind of ['mp4', 'prores', 'webm']) {
      const { files } = await deliverOutput({ ...orderOf(other, kind), base: `rate-${kind}-${frames}-${fps}` });
      expect(probed(path.join(loop.folder, files[0].name)).r_frame_rate, kind).toBe(rate);
    }
  });
  it('four seconds of 25 are a hundred pictures, ten of 24 are 240, and the last is not the first (common practice)', async () => {
    for (const [frames, fps] of [
      [100, 25],
      [240, 24],
    ]) {
      const long = testLoop(frames, fps, [32, 32]);
      try {
        const { files } = await deliverOutput(orderOf(long, 'mp4', { quality: 'lossless' }));
        const file = path.join(long.folder, files[0].name);
        expect(probed(file).nb_read_frames).toBe(`${frames}`);
        const all = pixels(file);
        const size = 4 * 32 * 32;
        expect(all.length).toBe(frames * size);
        expect(all.subarray(0, size).equals(all.subarray((frames - 1) * size))).toBe(false);
      } finally {
        rmSync(long.folder, { recursive: true, force: true });
      }
    }
  });
  it('played three times hold three loops, and every seam is looked at', async () => {
    const { files, report } = await deliverOutput({ ...orderOf(loop, 'mp4', { plays: 3 }), base: 'thrice' });
    expect(probed(path.join(loop.folder, files[0].name)).nb_read_frames).toBe('72');
    expect(report.round!.seams).toEqual([23, 47, 71]);
    expect(report.sound, report.words).toBe(true);
  });
  it('of whole pictures have keyframes alone', async () => {
    const { files } = await deliverOutput({ ...orderOf(loop, 'mp4', { whole: true }), base: 'whole' });
    const out = execFileSync('/usr/bin/ffprobe', [
      ...['-v', 'error', '-show_entries', 'frame=pict_type', '-of', 'csv=p=0', path.join(loop.folder, files[0].name)],
    ]);
    expect(new Set(out.toString().match(/[IPB]/g))).toEqual(new Set(['I']));
  });
  it('keep the colours of the frames: read as BT.709 they are within the losses of their quality', async () => {
    for (const [kind, most] of [
      ['mp4', 3],
      ['prores', 1.2],
    ] as const) {
      const { files } = await deliverOutput({
        ...orderOf(loop, kind, kind === 'mp4' ? { quality: 'lossless' } : { clear: false }),
        base: `colour-${kind}`,
      });
      const all = pixels(path.join(loop.folder, files[0].name));
      const wanted = eightBits(decodePng(readFileSync(loop.sheet('solid', 5))));
      const found = all.subarray(5 * wanted.length, 6 * wanted.length);
      let sum = 0;
      for (let i = 0; i < wanted.length; i++) sum += Math.abs(found[i] - wanted[i]);
      expect(sum / wanted.length, kind).toBeLessThan(most);
    }
  });
});

/** 24 colours: primaries and their mixtures, whole and half, greys, and some as they come. */
const PATCHES = [
  ...[
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
    [255, 255, 0],
    [0, 255, 255],
    [255, 0, 255],
    [255, 255, 255],
    [0, 0, 0],
  ],
  ...[
    [128, 0, 0],
    [0, 128, 0],
    [0, 0, 128],
    [128, 128, 0],
    [0, 128, 128],
    [128, 0, 128],
    [192, 192, 192],
    [64, 64, 64],
  ],
  ...[
    [200, 100, 50],
    [50, 100, 200],
    [100, 200, 50],
    [240, 220, 190],
    [90, 60, 40],
    [30, 70, 90],
    [250, 128, 114],
    [75, 0, 130],
  ],
];

describe('colours of movies', () => {
  /** Luma and both differences of colour as Rec. ITU-R BT.709-6 has them: 3.2 and 3.3, and 4.6 for whole numbers. */
  const exact = ([r, g, b]: readonly number[], bits: number) => {
    const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    const scale = 2 ** (bits - 8);
    return [219 * y + 16, 224 * ((b - y) / 1.8556) + 128, 224 * ((r - y) / 1.5748) + 128].map((x) => x * scale);
  };
  const side = 16;
  it.each([
    ['yuv420p', 8],
    ['yuv420p10le', 10],
    ['yuv444p', 8],
    ['yuv444p10le', 10],
  ] as const)('in %s all greys and 24 patches of 16 bits are right to half a step', (form, bits) => {
    for (const colours of [Array.from({ length: 256 }, (_, i) => [i, i, i]), PATCHES]) {
      const count = Math.ceil(Math.sqrt(colours.length));
      const size = side * count;
      const data = new Uint16Array(4 * size * size);
      const of = (i: number, j: number) => colours[(count * j + i) % colours.length];
      for (let y = 0; y < size; y++)
        for (let x = 0; x < size; x++)
          data.set([...of(Math.floor(x / side), Math.floor(y / side)).map((c) => 257 * c), 65_535], 4 * (size * y + x));
      const file = path.join(loop.folder, `patches-${colours.length}.png`);
      writeFileSync(file, encodePng({ width: size, height: size, data, channels: 4, depth: 16 }));
      const raw = execFileSync(
        '/usr/bin/ffmpeg',
        ['-v', 'error', '-i', file, '-vf', inForm(form), '-f', 'rawvideo', '-pix_fmt', form, '-'],
        { maxBuffer: 1e9 },
      );
      const half = form.includes('420') ? 2 : 1;
      const at = (plane: number, x: number, y: number) => {
        const [w, before] = plane === 0 ? [size, 0] : [size / half, size * size + (plane - 1) * (size / half) ** 2];
        const i = before + w * Math.floor(y / (plane === 0 ? 1 : half)) + Math.floor(x / (plane === 0 ? 1 : half));
        return bits === 8 ? raw[i] : raw.readUInt16LE(2 * i);
      };
      for (let j = 0; j < count; j++)
        for (let i = 0; i < count; i++) {
          const wanted = exact(
            of(i, j).map((c) => c / 255),
            bits,
          );
          wanted.forEach((w, plane) => {
            const found = at(plane, side * i + side / 2, side * j + side / 2);
            // To half a step, and the last bits of single precision in which it is reckoned.
            expect(Math.abs(found - w), `${of(i, j)} plane ${plane}: ${found}, ${w}`).toBeLessThanOrEqual(0.51);
          });
        }
    }
  });
  it.each(['mp4', 'hevc', 'webm', 'av1', 'prores'])(
    'in %s is their mean that of the frames, and told',
    async (kind) => {
      const { report } = await deliverOutput({
        ...orderOf(loop, kind, kind === 'prores' ? {} : { quality: 'good' }),
        base: `mean-${kind}`,
      });
      expect(report.facts.find((f) => f.title === 'Mean colour')).toMatchObject({
        found: expect.stringContaining('of 255'),
      });
      for (const x of report.round!.colour!) expect(Math.abs(x), kind).toBeLessThan(0.6);
    },
  );
});

describe('alpha, laid over two backdrops by another program', () => {
  it.each([
    ['prores', []],
    ['webm', ['-c:v', 'libvpx-vp9']],
    ['apng', []],
  ] as const)('%s shows as much of each as the frames say', async (kind, decoder) => {
    const { files, report } = await deliverOutput({
      ...orderOf(loop, kind, { clear: true, ...(kind === 'webm' ? { quality: 'lossless' } : {}) }),
      base: `clear-${kind}`,
    });
    expect(report.facts.find((f) => f.title === 'Alpha')).toEqual({ title: 'Alpha', found: 'yes' });
    const frame = 7;
    const own = eightBits(decodePng(readFileSync(loop.sheet('clear', frame))));
    for (const backdrop of [
      [255, 255, 255],
      [30, 90, 200],
    ]) {
      const colour = `0x${backdrop.map((c) => c.toString(16).padStart(2, '0')).join('')}`;
      const over = execFileSync(
        '/usr/bin/ffmpeg',
        [
          ...['-v', 'error', '-f', 'lavfi', '-i', `color=${colour}:s=96x64:r=25,format=gbrp`],
          ...[...decoder, '-i', path.join(loop.folder, files[0].name)],
          ...['-filter_complex', '[0][1]overlay=format=gbrp:alpha=straight,format=rgb24', '-frames:v', `${frame + 1}`],
          ...['-f', 'rawvideo', '-'],
        ],
        { maxBuffer: 1e9 },
      );
      const size = 3 * 96 * 64;
      const found = over.subarray(frame * size, (frame + 1) * size);
      let worst = 0;
      let sum = 0;
      for (let p = 0; p < 96 * 64; p++)
        for (let k = 0; k < 3; k++) {
          const a = own[4 * p + 3] / 255;
          const wanted = backdrop[k] + (own[4 * p + k] - backdrop[k]) * a;
          const off = Math.abs(found[3 * p + k] - wanted);
          worst = Math.max(worst, off);
          sum += off;
        }
      expect(sum / size, `${kind} over ${colour}`).toBeLessThan(2);
      // Colours of movies are at half the size, so that an edge may be off by more.
      expect(worst).toBeLessThan(kind === 'apng' ? 3 : kind === 'prores' ? 40 : 90);
    }
  });
});

describe('pictures that move', () => {
  it.each(['gif', 'apng', 'avif'])('%s has all frames, and goes round for ever', async (kind) => {
    const { files, report } = await deliverOutput(orderOf(loop, kind));
    const file = path.join(loop.folder, files[0].name);
    const s = probed(file);
    expect([s.width, s.height, s.nb_read_frames]).toEqual(['96', '64', '24']);
    if (kind !== 'avif')
      expect(report.facts.find((f) => f.title === 'Goes round')).toEqual({ title: 'Goes round', found: 'for ever' });
    expect(report.sound, report.words).toBe(true);
  });
  it('a GIF has one palette for the whole loop: tables of single images, where there are some, are the same (GIF89a)', async () => {
    const { files } = await deliverOutput({ ...orderOf(loop, 'gif'), base: 'palette' });
    const bytes = readFileSync(path.join(loop.folder, files[0].name));
    expect(bytes.subarray(0, 6).toString()).toBe('GIF89a');
    expect(bytes[10] & 0x80).toBe(0x80);
    // Blocks one after the other, as the specification has them (appendix B).
    const table = (flags: number) => 3 * 2 ** ((flags & 7) + 1);
    let at = 13 + table(bytes[10]);
    const palette = bytes.subarray(13, at);
    let images = 0;
    const skip = () => {
      while (bytes[at] !== 0) at += bytes[at] + 1;
      at++;
    };
    while (bytes[at] !== 0x3b)
      if (bytes[at] === 0x21) {
        at += 2;
        skip();
      } else {
        images++;
        const flags = bytes[at + 9];
        at += 10;
        if (flags & 0x80) {
          expect(bytes.subarray(at, at + table(flags)).equals(palette)).toBe(true);
          at += table(flags);
        }
        at++;
        skip();
      }
    expect(images).toBe(24);
  });
  it.each([
    [24, 24, 1],
    [60, 24, 2],
    [120, 24, 3],
  ])(
    'a GIF of %i frames a second is as long as its loop, and no picture of it too short',
    async (fps, count, every) => {
      const fast = testLoop(count, fps);
      try {
        const { files, report } = await deliverOutput(orderOf(fast, 'gif'));
        expect(report).toMatchObject({ sound: true });
        // As ffprobe reads it: how long each picture stands.
        const told = execFileSync('/usr/bin/ffprobe', [
          ...['-v', 'error', '-show_entries', 'packet=duration_time', '-of', 'csv=p=0'],
          path.join(fast.folder, files[0].name),
        ]);
        const times = told.toString().trim().split('\n').map(Number);
        expect(times).toHaveLength(count / every);
        expect(Math.min(...times)).toBeGreaterThanOrEqual(0.02);
        expect(Math.abs(times.reduce((a, b) => a + b, 0) - count / fps)).toBeLessThanOrEqual(0.0051);
      } finally {
        rmSync(fast.folder, { recursive: true, force: true });
      }
    },
  );
  it('an APNG says that its colours are sRGB', async () => {
    const { files } = await deliverOutput({ ...orderOf(loop, 'apng', { clear: false }), base: 'tagged' });
    const head = readFileSync(path.join(loop.folder, files[0].name)).subarray(0, 400);
    expect(head.indexOf('sRGB', 0, 'latin1')).toBeGreaterThan(0);
  });
  it('an animated WebP says how many it has and that it has no end (RFC 9649)', async () => {
    const { files } = await deliverOutput(orderOf(loop, 'webp'));
    const bytes = readFileSync(path.join(loop.folder, files[0].name));
    const chunks = { ANIM: 0, ANMF: 0 };
    for (let at = 12; at + 8 <= bytes.length;) {
      const name = bytes.subarray(at, at + 4).toString('latin1');
      if (name === 'ANIM') expect(bytes.readUInt16LE(at + 12)).toBe(0);
      if (name in chunks) chunks[name as keyof typeof chunks]++;
      const length = bytes.readUInt32LE(at + 4);
      at += 8 + length + (length % 2);
    }
    expect(chunks).toEqual({ ANIM: 1, ANMF: 24 });
  });
  it('an APNG has the frames in every bit of 8', async () => {
    const { files } = await deliverOutput({ ...orderOf(loop, 'apng'), base: 'exact' });
    const all = pixels(path.join(loop.folder, files[0].name));
    for (const index of [0, 11, 23]) {
      const wanted = eightBits(decodePng(readFileSync(loop.sheet('solid', index))));
      const found = all.subarray(index * wanted.length, (index + 1) * wanted.length);
      let worst = 0;
      for (let i = 0; i < wanted.length; i++) worst = Math.max(worst, Math.abs(found[i] - wanted[i]));
      expect(worst).toBeLessThanOrEqual(1);
    }
  });
});

describe('the seam of a file', () => {
  it('is told of where the file has a pulse that its frames have not', async () => {
    // Frames of which the file is made are those of a loop that closes; the file is of one whose last frames are brighter.
    const bright = testLoop(24, 25, [96, 64], (at) => (at > 0.9 ? 0.06 : 0));
    try {
      const { readBack } = await import('./check/read-back');
      const { files } = await deliverOutput({ ...orderOf(bright, 'mp4'), base: 'pulse' });
      const order = orderOf(loop, 'mp4');
      const making = {
        ...order,
        values: { quality: 'good', plays: 1, whole: false },
        sheet: (i: number) => loop.sheet('solid', i),
        folder: bright.folder,
        frameName: String,
        ending: 'mp4',
      };
      const report = await readBack('mp4', making, [files[0].name]);
      expect(report.sound).toBe(false);
      expect(report.words).toContain('a pulse at its seam');
      expect(report.round!.brightness).toBeLessThan(-5);
      expect(report.repairs!.map((r) => r.title)).toEqual(['Quality: visually lossless', 'All-intra']);
    } finally {
      rmSync(bright.folder, { recursive: true, force: true });
    }
  });
  it('of a part of a loop is none, and nothing is said of it', async () => {
    const { report } = await deliverOutput({ ...orderOf(loop, 'mp4'), frames: loop.frames.slice(3, 9), base: 'part' });
    expect(report.round!.seams).toEqual([]);
    expect(report.words).toBe('Counts, size, rate and colours are as asked for.');
  });
  it('a file that is not as it should be is told of by what is wrong', async () => {
    const { readBack } = await import('./check/read-back');
    const { files } = await deliverOutput({ ...orderOf(loop, 'mp4'), frames: loop.frames.slice(0, 20), base: 'short' });
    const making = {
      ...orderOf(loop, 'mp4'),
      values: { plays: 1 },
      sheet: (i: number) => loop.sheet('solid', i),
      frameName: String,
      ending: 'mp4',
    };
    const report = await readBack('mp4', making, [files[0].name]);
    expect(report.sound).toBe(false);
    expect(report.words).toContain('Pictures is 20 and should be 24');
  });
});

describe('every kind of output', () => {
  it('has what makes it', async () => {
    const { makers } = await import('./outputs/index');
    expect(Object.keys(makers).sort()).toEqual(outputs.all.map((o) => o.kind).sort());
    for (const kind of outputs.all) expect(typeof (await makers[kind.kind]())).toBe('function');
  });
});
