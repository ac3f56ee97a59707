/** Browser storage: permanent, or for as long as the tab is open. */
type Lasting = 'local' | 'session';

/** The storage; undefined on the server, and in a browser that blocks it, where even access throws. */
function storeOf(lasting: Lasting): Storage | undefined {
  try {
    return globalThis[`${lasting}Storage`];
  } catch {
    return undefined;
  }
}

/** The stored text; null for none, or without storage. */
export function keptText(name: string, lasting: Lasting = 'local'): string | null {
  try {
    return storeOf(lasting)?.getItem(name) ?? null;
  } catch {
    return null;
  }
}

/** The same as JSON; `otherwise` if it cannot be parsed. */
export function keptJson(name: string, otherwise: unknown = null, lasting: Lasting = 'local'): unknown {
  try {
    return JSON.parse(keptText(name, lasting) ?? 'null') ?? otherwise;
  } catch {
    return otherwise;
  }
}

/** Stored names with a prefix. */
export function keptNames(prefix: string, lasting: Lasting = 'local'): string[] {
  try {
    const store = storeOf(lasting);
    return Array.from({ length: store?.length ?? 0 }, (_, i) => store!.key(i) ?? '').filter((k) =>
      k.startsWith(prefix),
    );
  } catch {
    return [];
  }
}

/** Stores a text; false without storage or room. */
export function keepText(name: string, text: string, lasting: Lasting = 'local'): boolean {
  try {
    const store = storeOf(lasting);
    store?.setItem(name, text);
    return store !== undefined;
  } catch {
    return false;
  }
}

/** Removes a stored text. */
export function dropText(name: string, lasting: Lasting = 'local'): void {
  try {
    storeOf(lasting)?.removeItem(name);
  } catch {
    // Nothing was stored.
  }
}
