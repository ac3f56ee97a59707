/** Where the browser keeps things: until they are taken away, or for as long as the tab is open. */
type Lasting = 'local' | 'session';

/** The store; undefined on the server, and in a browser that blocks it, where even asking for it throws. */
function storeOf(lasting: Lasting): Storage | undefined {
  try {
    return globalThis[`${lasting}Storage`];
  } catch {
    return undefined;
  }
}

/** What is kept under a name, as text; null for nothing, or where the browser keeps nothing. */
export function keptText(name: string, lasting: Lasting = 'local'): string | null {
  try {
    return storeOf(lasting)?.getItem(name) ?? null;
  } catch {
    return null;
  }
}

/** The same as JSON; `otherwise` where there is none that can be read. */
export function keptJson(name: string, otherwise: unknown = null, lasting: Lasting = 'local'): unknown {
  try {
    return JSON.parse(keptText(name, lasting) ?? 'null') ?? otherwise;
  } catch {
    return otherwise;
  }
}

/** The names under which something is kept that begin so. */
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

/** Keeps a text; false where the browser has no store, or no room in it. */
export function keepText(name: string, text: string, lasting: Lasting = 'local'): boolean {
  try {
    const store = storeOf(lasting);
    store?.setItem(name, text);
    return store !== undefined;
  } catch {
    return false;
  }
}

/** Keeps nothing under a name any more. */
export function dropText(name: string, lasting: Lasting = 'local'): void {
  try {
    storeOf(lasting)?.removeItem(name);
  } catch {
    // Nothing was kept.
  }
}
