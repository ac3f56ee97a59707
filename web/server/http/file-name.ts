import { plainName } from '@maypole/core/output/names';

/** "barometer-blooms.maypole.json" for a document; "piece.maypole.json" where it has no readable name. */
export function fileName(source: string): string {
  let name = '';
  try {
    const value: unknown = JSON.parse(source)?.name;
    if (typeof value === 'string') name = value;
  } catch {
    // An unreadable document is still exported, under a plain name.
  }
  return `${plainName(name)}.maypole.json`;
}

/** Content-Disposition of a download (RFC 6266): the full name, and an ASCII fallback. */
export function attachment(name: string): string {
  const plain = name.replace(/[^\x20-\x7e]/g, '_').replace(/["\\]/g, '');
  const whole = encodeURIComponent(name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
  return `attachment; filename="${plain}"${plain === name ? '' : `; filename*=UTF-8''${whole}`}`;
}
