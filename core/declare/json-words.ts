/**
 * The JSON of any value, cut to `most` characters. It reads no more of the value than it shows, so that any depth or
 * size is cheap. A value without JSON (undefined, a function) is shown as JavaScript prints it.
 */
export function shownJson(value: unknown, most: number): string {
  let out = '';
  const text = (words: string) => JSON.stringify(words.slice(0, most + 1));
  const write = (x: unknown): void => {
    if (out.length > most) return;
    if (typeof x === 'string') out += text(x);
    else if (Array.isArray(x)) {
      out += '[';
      for (let i = 0; i < x.length && out.length <= most; i++) {
        if (i > 0) out += ',';
        write(x[i]);
      }
      out += ']';
    } else if (typeof x === 'object' && x !== null) {
      out += '{';
      let first = true;
      for (const key in x) {
        if (out.length > most) break;
        out += `${first ? '' : ','}${text(key)}:`;
        first = false;
        write((x as Record<string, unknown>)[key]);
      }
      out += '}';
    } else out += typeof x === 'number' ? JSON.stringify(x) : String(x);
  };
  write(value);
  return out.length > most ? `${out.slice(0, most - 1)}…` : out;
}
