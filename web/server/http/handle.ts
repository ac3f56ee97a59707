import { z } from 'zod';
import { AppError } from './app-error';
import { databaseTrouble } from './database-trouble';

type Handler<C> = (request: Request, context: C) => Promise<Response>;

/** Wraps a route handler: every failure becomes a plain sentence, never a stack. */
export function handle<C>(handler: Handler<C>): Handler<C> {
  return async (request, context) => {
    try {
      return await handler(request, context);
    } catch (error) {
      if (error instanceof AppError) return Response.json({ error: error.message }, { status: error.status });
      if (error instanceof z.ZodError) {
        const issue = error.issues[0];
        const tooLarge = issue?.code === 'too_big' && issue.origin === 'string';
        return Response.json(
          { error: issue?.message ?? 'The request is not understood.' },
          { status: tooLarge ? 413 : 400 },
        );
      }
      const trouble = databaseTrouble(error);
      if (trouble)
        return Response.json(
          { error: trouble.words },
          { status: trouble.status, headers: trouble.status === 503 ? { 'Retry-After': '2' } : {} },
        );
      console.error(error);
      return Response.json(
        { error: 'Maypole could not do this; its log says why. Nothing you made was changed.' },
        { status: 500 },
      );
    }
  };
}

/** The body in full, refused as soon as it is longer than `limit` bytes. */
export async function readBody(request: Request, limit: number): Promise<Buffer> {
  const tooLong = () =>
    new AppError(413, `This is larger than ${Math.floor(limit / 1024 / 1024)} MB, the most that is taken.`);
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLong();
  const chunks: Uint8Array[] = [];
  let size = 0;
  if (request.body)
    for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
      size += chunk.byteLength;
      if (size > limit) throw tooLong();
      chunks.push(chunk);
    }
  return Buffer.concat(chunks);
}

/** A JSON body checked against a schema. */
export async function readJson<T>(request: Request, schema: z.ZodType<T>, limit: number): Promise<T> {
  const text = (await readBody(request, limit)).toString('utf8');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new AppError(400, 'The request is not JSON.');
  }
  return schema.parse(value);
}
