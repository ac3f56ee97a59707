/** Browsers and systems by their User-Agent; the first match counts, because most name others too. */
const BROWSERS = [
  [/Edg\w*\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrom(e|ium)\//, 'Chromium'],
  [/Safari\//, 'Safari'],
] as const;
const SYSTEMS = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux|X11/, 'Linux'],
] as const;

const first = (list: readonly (readonly [RegExp, string])[], text: string) =>
  list.find(([mark]) => mark.test(text))?.[1];

/** A browser in words: “Firefox on Linux”. */
export function browserWords(agent: string | null): string {
  const [browser, system] = [first(BROWSERS, agent ?? ''), first(SYSTEMS, agent ?? '')];
  return `${browser ?? 'A browser'}${system ? ` on ${system}` : ''}`;
}
