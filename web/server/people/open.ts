import { AppError } from '../http/app-error';

/** Whether Maypole is open to others than this machine; then everyone needs an account. Set by the start command. */
export function isOpen(): boolean {
  return process.env.MAYPOLE_OPEN === '1';
}

/** For what exists only where Maypole is open; `so` ends the sentence: “so there are no passwords”. */
export function assertOpen(so: string): void {
  if (!isOpen()) throw new AppError(404, `Maypole is not open to others here, ${so}.`);
}
