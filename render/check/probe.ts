import { FFPROBE, run } from '../files/program';

/** What an independent reader finds in a movie or animated picture. */
export interface Probed {
  readonly codec: string;
  readonly width: number;
  readonly height: number;
  readonly pixels: string;
  /** Decoded pictures. */
  readonly count: number;
  /** "24000/1001": as the file states it, and the mean over its timestamps. */
  readonly rate: string;
  readonly meanRate: string;
  readonly space: string;
  readonly transfer: string;
  readonly primaries: string;
  readonly range: string;
  readonly alpha: boolean;
}

export async function probe(file: string, signal?: AbortSignal): Promise<Probed> {
  const out = await run(
    FFPROBE,
    [...['-v', 'error', '-select_streams', 'v:0', '-count_frames', '-show_streams', '-of', 'json'], file],
    { signal },
  );
  const { streams } = JSON.parse(out.toString()) as {
    streams: Record<string, string | number | Record<string, string>>[];
  };
  const s = streams[0] ?? {};
  const text = (name: string) => String(s[name] ?? '');
  const tags = (s.tags ?? {}) as Record<string, string>;
  return {
    codec: text('codec_name'),
    width: Number(s.width ?? 0),
    height: Number(s.height ?? 0),
    pixels: text('pix_fmt'),
    count: Number(s.nb_read_frames ?? 0),
    rate: text('r_frame_rate'),
    meanRate: text('avg_frame_rate'),
    space: text('color_space'),
    transfer: text('color_transfer'),
    primaries: text('color_primaries'),
    range: text('color_range'),
    alpha: /a(\d|$|p|le|64)|rgba|bgra|argb|yuva/.test(text('pix_fmt')) || (tags.alpha_mode ?? tags.ALPHA_MODE) === '1',
  };
}

/**
 * Loop count of an animated picture: 0 for endless; undefined if it states none (GIF89a application extension, PNG
 * acTL, WebP ANIM).
 */
export function loopCount(bytes: Buffer): number | undefined {
  if (bytes.subarray(0, 4).toString('latin1') === 'GIF8') {
    const at = bytes.indexOf('NETSCAPE2.0', 0, 'latin1');
    return at < 0 ? undefined : bytes.readUInt16LE(at + 13);
  }
  if (bytes.subarray(0, 4).toString('latin1') === 'RIFF') {
    const at = bytes.indexOf('ANIM', 0, 'latin1');
    return at < 0 ? undefined : bytes.readUInt16LE(at + 12);
  }
  const at = bytes.indexOf('acTL', 0, 'latin1');
  return at < 0 ? undefined : bytes.readUInt32BE(at + 8);
}
