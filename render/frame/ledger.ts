import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from './keep';

type Row = Partial<Record<FrameImageName, KeptFrameImage>>;

/**
 * What is kept of a render's finished frames, by fingerprint, in a file of one frame a line: a frame
 * costs one line however long the render is, and a line that was cut off costs only its frame.
 */
export class FrameLedger {
  private readonly rows = new Map<string, Row>();

  constructor(private readonly file: string) {
    if (!existsSync(file)) return;
    for (const line of readFileSync(file, 'utf8').split('\n')) {
      try {
        const [fingerprint, row] = JSON.parse(line) as [string, Row];
        this.take(fingerprint, row);
      } catch {
        // An empty line, or one cut off: its frame is made again.
      }
    }
  }

  private take(fingerprint: string, row: Row): void {
    this.rows.set(fingerprint, { ...this.rows.get(fingerprint), ...row });
  }

  of(fingerprint: string): Readonly<Row> {
    return this.rows.get(fingerprint) ?? {};
  }

  add(fingerprint: string, row: Row): void {
    this.take(fingerprint, row);
    // A new line first, so that what a break left of a line is parted from this one.
    appendFileSync(this.file, `\n${JSON.stringify([fingerprint, row])}`);
  }
}
