import type { z } from 'zod';
import { database } from '../data/db';
import { log } from '../gateway/log';
import { noteSession } from '../gateway/known-sessions';
import { admit, type Who } from '../people/admit';
import { isOpen } from '../people/open';
import type { Person } from '../../contract/person';
import { assertSure } from '../people/sessions';
import { recordEvent } from '../people/audit-log';
import { answerOf } from './answer-of';
import { bodyFile, readBody, withFolder } from './body';
import { visitOf, type Visit } from './visit';

/** What a route is, before what it does. */
export interface RouteRules {
  /** Who may use it. */
  readonly who: Who;
  /** Whether the password must have been given of late, where people have accounts: for what gives others power. */
  readonly sure?: boolean;
  /** Bytes of the largest body it takes, which it is given whole; none is taken without it. */
  readonly body?: number;
  /** The schema of its body, where that is JSON; the test of what routes take goes by it. */
  readonly takes?: z.ZodType;
  /** The same for a body that is given as a file. */
  readonly file?: number;
  /** What is written into the trail where it was done, as “saved”. */
  readonly deed?: string;
}

/** What a handler is given of a request. */
export interface Call<P> {
  readonly request: Request;
  readonly params: P;
  readonly query: URLSearchParams;
  readonly visit: Visit;
  /** Who asks; undefined where anyone may and nobody is known. */
  readonly person: Person | undefined;
  /** The body, where the rules say `body`. */
  readonly body: Buffer;
  /** A file that has the body, where they say `file`, in a folder that lasts as long as the handler. */
  readonly file: string;
}

export type Route = ((request: Request, context?: { params: Promise<unknown> }) => Promise<Response>) & {
  readonly rules: RouteRules;
};

const NONE = Buffer.alloc(0);

/**
 * A route: who may use it, how much it takes, what it does. Every failure becomes a plain sentence, never a stack.
 *
 * @example
 * export const PUT = route<{ id: string }>({ who: 'edit', body: 1000 }, async ({ params, body }) => …);
 */
export function route<P = unknown>(rules: RouteRules, handler: (call: Call<P>) => Promise<Response>): Route {
  const answer = async (request: Request, context?: { params: Promise<unknown> }): Promise<Response> => {
    let visit = visitOf(request.headers);
    try {
      const person = await admit(rules.who, request);
      if (person && isOpen()) {
        visit = { ...visit, who: `person ${person.id}` };
        // From here on the way in knows whose requests these are.
        noteSession(request.headers.get('cookie'), person.id);
      }
      if (rules.sure && isOpen()) await assertSure(request.headers);
      const call = {
        request,
        params: ((await context?.params) ?? {}) as P,
        query: new URL(request.url).searchParams,
        visit,
        person,
        body: NONE,
        file: '',
      };
      const most = rules.file;
      const response =
        most === undefined
          ? await handler({ ...call, body: await readBody(request, rules.body ?? 0) })
          : await withFolder(async (folder) => handler({ ...call, file: await bodyFile(request, most, folder) }));
      if (rules.deed && person && response.ok) {
        const { id } = call.params as { id?: string };
        recordEvent(database(), { what: rules.deed, on: id ?? '', person, client: visit.client });
      }
      // What is not said to be keepable is kept by no cache.
      if (!response.headers.has('Cache-Control')) response.headers.set('Cache-Control', 'no-store');
      return response;
    } catch (error) {
      const known = answerOf(error);
      if (known)
        return Response.json(
          { error: known.error },
          {
            status: known.status,
            headers: {
              'Cache-Control': 'no-store',
              ...(known.status === 503 || known.status === 429 ? { 'Retry-After': '2' } : {}),
            },
          },
        );
      const told = error instanceof Error ? (error.stack ?? error.message) : `${error}`;
      log().error({ request: visit.request, error: told }, 'fault');
      return Response.json(
        {
          error:
            `Maypole could not do this; its log says why${visit.request ? ` under ${visit.request}` : ''}. Nothing ` +
            'you made was changed.',
        },
        { status: 500, headers: { 'Cache-Control': 'no-store' } },
      );
    }
  };
  return Object.assign(answer, { rules });
}
