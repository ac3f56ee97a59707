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

/** Rules of a route, checked before its handler runs. */
export interface RouteRules {
  /** Who may use it. */
  readonly who: Who;
  /** Requires a recent password where there are accounts: for whatever gives others power. */
  readonly sure?: boolean;
  /** Largest body in bytes, passed whole; without it no body is accepted. */
  readonly body?: number;
  /** Schema of a JSON body; the test of all routes uses it. */
  readonly takes?: z.ZodType;
  /** The same for a body passed as a file. */
  readonly file?: number;
  /** Event for the audit log, such as “saved”. */
  readonly deed?: string;
}

/** What a handler gets. */
export interface Call<P> {
  readonly request: Request;
  readonly params: P;
  readonly query: URLSearchParams;
  readonly visit: Visit;
  /** The caller; undefined on public routes. */
  readonly person: Person | undefined;
  /** The body, if the rules say `body`. */
  readonly body: Buffer;
  /** A file with the body, if they say `file`; deleted after the handler. */
  readonly file: string;
}

export type Route = ((request: Request, context?: { params: Promise<unknown> }) => Promise<Response>) & {
  readonly rules: RouteRules;
};

const NONE = Buffer.alloc(0);

/**
 * Defines a route: who may use it, what it accepts, what it does. Every failure becomes a plain sentence, never a
 * stack.
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
        // From here on the gateway knows whose requests these are.
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
      // Answers are not cached unless they say so.
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
