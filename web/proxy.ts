import { NextResponse, type NextRequest } from 'next/server';
import { contentSecurityPolicy, refusal, SAFETY_HEADERS } from './server/http/guard';

/** Runs before every request: who may ask, and what the answer may do. */
export function proxy(request: NextRequest): Response {
  const why = refusal(
    request.method,
    request.headers.get('host'),
    request.headers.get('origin'),
    process.env.MAYPOLE_HOSTS,
  );
  if (why) return Response.json({ error: why }, { status: 403, headers: SAFETY_HEADERS });
  const nonce = btoa(crypto.randomUUID());
  const policy = contentSecurityPolicy(nonce, process.env.NODE_ENV === 'development');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  for (const [name, value] of Object.entries(SAFETY_HEADERS)) response.headers.set(name, value);
  return response;
}
