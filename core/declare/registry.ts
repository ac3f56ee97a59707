/** Something declared once, in a file of its own. */
export interface Declared {
  readonly kind: string;
  readonly title: string;
}

/**
 * All declared kinds of one sort, in the order of their menu.
 *
 * @example
 * const lights = new Registry('light', [studio, sun]);
 * lights.get('sun').title; // "Sun"
 * lights.get('moon'); // RangeError: There is no light called “moon”. Known: studio, sun.
 */
export class Registry<K extends Declared> {
  private readonly byKind = new Map<string, K>();

  /** @param what one of them in a plain word, for messages */
  constructor(
    readonly what: string,
    kinds: readonly K[],
  ) {
    for (const k of kinds) this.add(k);
  }

  /** In the order of the menu. */
  get all(): readonly K[] {
    return [...this.byKind.values()];
  }

  has(kind: string): boolean {
    return this.byKind.has(kind);
  }

  /** The declaration of a kind; throws a RangeError naming an unknown one. */
  get(kind: string): K {
    const found = this.byKind.get(kind);
    if (!found)
      throw new RangeError(`There is no ${this.what} called “${kind}”. Known: ${[...this.byKind.keys()].join(', ')}.`);
    return found;
  }

  /** Adds a kind at the end. Throws a RangeError if the name is taken. */
  add(kind: K): void {
    if (this.byKind.has(kind.kind)) throw new RangeError(`There is a ${this.what} called “${kind.kind}” already.`);
    this.byKind.set(kind.kind, kind);
  }

  /** Removes a kind; for tests. */
  remove(kind: string): void {
    this.byKind.delete(kind);
  }
}
