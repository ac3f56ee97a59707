import { describe, expect, it, vi } from 'vitest';
import { answerOf } from './answer-of';
import { AppError } from './app-error';

describe('an error with words for the user', () => {
  it('is known whichever copy of its module has made it, as where the way in made the pool of jobs', async () => {
    vi.resetModules();
    const other = (await import('./app-error')).AppError;
    expect(other).not.toBe(AppError);
    const refused = new other(422, 'At ribbons[0]: “many” is not a number.');
    expect(refused).toBeInstanceOf(AppError);
    expect(answerOf(refused)).toEqual({ status: 422, error: 'At ribbons[0]: “many” is not a number.' });
    expect(new Error('other') instanceof AppError).toBe(false);
    expect(answerOf(new Error('other'))).toBeUndefined();
    for (const nothing of [null, undefined, 'text', 7]) expect((nothing as unknown) instanceof AppError).toBe(false);
  });
});
