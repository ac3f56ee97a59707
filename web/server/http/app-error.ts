/** Identifies an AppError whichever bundle created it: each built program has its own copy of this module. */
const BRAND = Symbol.for('maypole.app-error');

/** An error whose message is for the user, with its HTTP status. `instanceof` goes by the brand. */
export class AppError extends Error {
  override readonly name = 'AppError';
  readonly [BRAND] = true;
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }

  static override [Symbol.hasInstance](value: unknown): boolean {
    return typeof value === 'object' && value !== null && BRAND in value;
  }
}
