/** By which an AppError is known, whichever copy of this module has made it: each program that is built has one. */
const BRAND = Symbol.for('maypole.app-error');

/** An error whose message is meant for the user, with its HTTP status. `instanceof` goes by the brand. */
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
