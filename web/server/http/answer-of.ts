import { z } from 'zod';
import { AppError } from './app-error';
import { databaseTrouble } from './database-trouble';

/** The answer to an error with words for the user; undefined for a fault of ours. */
export function answerOf(error: unknown): { readonly status: number; readonly error: string } | undefined {
  if (error instanceof AppError) return { status: error.status, error: error.message };
  if (error instanceof z.ZodError) {
    const issue = error.issues[0];
    const tooLarge = issue?.code === 'too_big' && issue.origin === 'string';
    return { status: tooLarge ? 413 : 400, error: issue?.message ?? 'The request is not understood.' };
  }
  const trouble = databaseTrouble(error);
  return trouble && { status: trouble.status, error: trouble.words };
}
