import { AppError } from '../http/app-error';
import type { Call } from '../http/route';
import { attempts } from './attempts';

/**
 * Runs something that the accounts library does with the present password. An attempt is counted before the check, and
 * uncounted if it was right.
 *
 * @throws AppError 422 for a wrong password, 429 after too many attempts
 */
export async function byPassword(
  { person, visit }: Pick<Call<unknown>, 'person' | 'visit'>,
  work: () => Promise<Response>,
): Promise<Response> {
  const trying = { client: visit.client, account: person!.id };
  attempts().begin(trying);
  const answer = await work();
  if (!answer.ok) {
    const { code } = (await answer.json().catch(() => ({}))) as { code?: string };
    if (code === 'INVALID_PASSWORD') throw new AppError(422, 'This is not your present password. Nothing was changed.');
    attempts().succeeded(trying);
    throw new AppError(422, REASONS[code ?? ''] ?? 'This could not be done. Load the page again, and try once more.');
  }
  attempts().succeeded(trying);
  return answer;
}

const REASONS: Readonly<Record<string, string>> = {
  TOTP_ALREADY_ENABLED: 'Codes are asked for already. Turn them off first to begin with another device.',
  TWO_FACTOR_NOT_ENABLED: 'No codes are asked for yet, so there are none for paper.',
};
