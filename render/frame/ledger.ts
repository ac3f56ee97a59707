import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from './keep';

type Row = Partial<Record<FrameImageName, KeptFrameImage>>;

/**
 * The finished frames of a render by key, one line each: a frame costs one line however long the render is, and a
 * truncated line costs only its frame.
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
        // A line that is empty or truncated: its frame is made again.
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
    // Begins with a line break, so that a truncated line does not join this one.
    appendFileSync(this.file, `\n${JSON.stringify([fingerprint, row])}`);
  }
}
