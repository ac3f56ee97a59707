/** An error whose message is meant for the user, with its HTTP status. */
export class AppError extends Error {
  override readonly name = 'AppError';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}
