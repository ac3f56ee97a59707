import { closeSync, openSync, writeSync } from 'node:fs';

const PIECE = 1 << 20;

/** A text file written incrementally. */
export class TextFile {
  private readonly fd: number;
  private parts: string[] = [];
  private waiting = 0;
  bytes = 0;

  constructor(file: string) {
    this.fd = openSync(file, 'w');
  }

  write(text: string): void {
    this.parts.push(text);
    this.waiting += text.length;
    if (this.waiting > PIECE) this.flush();
  }

  close(): void {
    this.flush();
    closeSync(this.fd);
  }

  private flush(): void {
    const bytes = Buffer.from(this.parts.join(''));
    for (let at = 0; at < bytes.length;) at += writeSync(this.fd, bytes, at);
    this.bytes += bytes.length;
    this.parts = [];
    this.waiting = 0;
  }
}

/** The shortest decimal that single precision reads back as the same number. */
export function short(x: number): string {
  const single = Math.fround(x);
  for (let digits = 6; digits < 9; digits++) {
    const text = single.toPrecision(digits);
    if (Math.fround(Number(text)) === single) return `${Number(text)}`;
  }
  return `${Number(single.toPrecision(9))}`;
}
