import { randomBytes, randomUUID } from 'node:crypto';
import http, { type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http';
import https from 'node:https';
import type { Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { contentSecurityPolicy, SAFETY_HEADERS } from '../http/guard';
import { CLIENT, REQUEST, SECURE } from '../http/visit';
import { clientOf, isLoopback, isProxy, plainAddress, proxyList } from './client';
import { FRONT, type FrontFigures } from './figures';
import { personOf } from './known-sessions';
import { endDraining, drain } from './drain';
import { log } from './log';
import { metrics } from './metrics';
import { METHODS, refusalOf } from './refusal';
import { Turns } from './turns';

interface FrontOptions {
  /** Handles a request that was let in. */
  readonly answer: (request: IncomingMessage, response: ServerResponse) => unknown;
  /** Certificate and key in PEM, for TLS. */
  readonly tls?: { readonly cert: Buffer; readonly key: Buffer };
  /** Trusted proxies, and further host names; see clientOf and refusal. */
  readonly proxies?: string;
  readonly hosts?: string;
  /** Passwords and sessions pass here, so that only TLS is accepted. */
  readonly secureOnly?: boolean;
  readonly figures?: FrontFigures;
}

export interface Front {
  readonly server: Server;
  /** Accepts nothing new, gives requests under way ten seconds, and closes. */
  drain(): Promise<void>;
}

/**
 * The gateway: every connection and request passes here first. It bounds what a client may have open, request and send,
 * refuses malformed requests, numbers each request, and logs how it went.
 */
export function front({ answer, tls, proxies: proxiesText, hosts, secureOnly, figures = FRONT }: FrontOptions): Front {
  const proxies = proxyList(proxiesText);
  const turns = new Turns(figures);
  const start = randomBytes(3).toString('hex');
  let count = 0;
  let draining = false;

  const listener: RequestListener = (request, response) => {
    const began = performance.now();
    const number = `${start}-${(++count).toString(36)}`;
    const forwarded = request.headers['x-forwarded-for'];
    const peer = request.socket.remoteAddress;
    const client = clientOf(peer, Array.isArray(forwarded) ? forwarded.join() : forwarded, proxies);
    const declared = request.headers['content-length'];
    const length = declared === undefined ? 0 : Number(declared);
    const method = request.method ?? '';
    const url = request.url ?? '';

    response.setHeader('X-Request', number);
    if (length > 0 || request.headers['transfer-encoding']) endDraining(request, response, figures);
    let told = false;
    const done = (error?: string) => {
      if (told) return;
      told = true;
      const ms = Math.round(performance.now() - began);
      metrics().requests.inc({ method: METHODS.includes(method) ? method : 'other', status: response.statusCode });
      metrics().seconds.observe({ method: METHODS.includes(method) ? method : 'other' }, ms / 1000);
      const line = { request: number, client, method, path: url.slice(0, 300), status: response.statusCode, ms, error };
      if (response.statusCode >= 500) log().warn(line, 'answered');
      else log().info(line, 'answered');
    };
    const turnAway = (status: number, error: string, headers: Record<string, string> = {}) => {
      metrics().refused.inc({ why: `${status}` });
      const body = JSON.stringify({ error, request: number });
      response.writeHead(status, {
        ...SAFETY_HEADERS,
        ...headers,
        'Cache-Control': 'no-store',
        'Content-Type': 'application/json',
        'Content-Length': Buffer.byteLength(body),
        Connection: 'close',
      });
      response.end(body, () => endSocket(request));
      done(error);
    };

    const secure = tls !== undefined || (isProxy(peer, proxies) && request.headers['x-forwarded-proto'] === 'https');
    const refused = refusalOf({
      secure,
      method,
      url,
      host: request.headers.host ?? null,
      origin: request.headers.origin ?? null,
      length,
      allowed: hosts,
    });
    if (refused)
      return turnAway(refused.status, refused.error, refused.status === 405 ? { Allow: METHODS.join(', ') } : {});
    // The command that started it checks its health on this machine.
    if (secureOnly && !secure && !(isLoopback(client) && url === '/api/health'))
      return turnAway(
        403,
        'This came without TLS, over which passwords could be read. Open Maypole by https, and let the proxy say ' +
          'so in X-Forwarded-Proto.',
      );
    if (draining)
      return turnAway(503, 'Maypole is just ending; try again when it has been started.', { 'Retry-After': '5' });
    // Many people may share an address: whoever is signed in is counted separately.
    const person = personOf(request.headers.cookie);
    const who = person === undefined ? client : `person ${person}`;
    const wait = turns.begin(who, request.headers['transfer-encoding'] ? figures.body : length);
    if (wait) return turnAway(429, wait.error, { 'Retry-After': `${wait.seconds}` });

    const begin = () => void answer(request, response);
    response.once('close', () => {
      turns.end(who, begin);
      done();
      // A body that nobody reads is drained for a moment only.
      if (!request.complete) drain(request, figures, () => void (request.complete || endSocket(request)));
      if (draining) setImmediate(() => server.closeIdleConnections());
    });
    setHeaders(request, response, { client, number, secure });
    watchBody(request, response, figures, turnAway);
    turns.work(who, begin);
  };

  const limits = {
    headersTimeout: figures.headers,
    requestTimeout: figures.whole,
    keepAliveTimeout: 5000,
    connectionsCheckingInterval: Math.min(1000, figures.headers / 4),
    maxHeaderSize: 16 * 1024,
  };
  const server: Server = tls
    ? https.createServer({ ...limits, ...tls, minVersion: 'TLSv1.2' }, listener)
    : http.createServer(limits, listener);
  server.on('connection', (socket: Socket) => limitConnections(socket, turns, proxies));
  // No other protocol is supported.
  server.on('upgrade', (_request: IncomingMessage, socket: Duplex) => socket.destroy());
  server.on('clientError', badRequest);

  return {
    server,
    drain: () =>
      new Promise((resolve) => {
        draining = true;
        const cut = setTimeout(() => server.closeAllConnections(), figures.drain);
        server.close(() => {
          clearTimeout(cut);
          resolve();
        });
        server.closeIdleConnections();
      }),
  };
}

/** Headers that a client cannot set itself, and those of safety. */
function setHeaders(
  request: IncomingMessage,
  response: ServerResponse,
  { client, number, secure }: { client: string; number: string; secure: boolean },
): void {
  const nonce = randomUUID().replaceAll('-', '');
  const policy = contentSecurityPolicy(nonce);
  request.headers[CLIENT] = client;
  request.headers[REQUEST] = number;
  request.headers[SECURE] = secure ? '1' : '0';
  request.headers['x-nonce'] = nonce;
  request.headers['content-security-policy'] = policy;
  for (const name of ['x-middleware-subrequest', 'x-forwarded-host']) delete request.headers[name];
  response.setHeader('Content-Security-Policy', policy);
  for (const [name, value] of Object.entries(SAFETY_HEADERS)) response.setHeader(name, value);
  if (secure) response.setHeader('Strict-Transport-Security', 'max-age=31536000');
}

/** Counts the open connections of an address, and closes those beyond its limit. */
function limitConnections(socket: Socket, turns: Turns, proxies: ReturnType<typeof proxyList>): void {
  const peer = plainAddress(socket.remoteAddress);
  if (isProxy(peer, proxies)) return;
  if (turns.connected(peer)) {
    metrics().connections.inc();
    socket.once('close', () => {
      turns.disconnected(peer);
      metrics().connections.dec();
    });
    return;
  }
  metrics().refused.inc({ why: 'connections' });
  socket.end(
    'HTTP/1.1 429 Too Many Requests\r\nRetry-After: 10\r\nContent-Type: text/plain\r\nConnection: close\r\n\r\n' +
      'Too many connections are open from this address; close some of them.\n',
  );
  socket.destroySoon();
}

/** Closes a connection once what was written is sent. */
function endSocket(request: IncomingMessage): void {
  request.socket.destroySoon();
}

/** Ends a request whose body is too long or stalls, measured by its connection. */
function watchBody(
  request: IncomingMessage,
  response: ServerResponse,
  figures: FrontFigures,
  turnAway: (status: number, error: string) => void,
): void {
  const { socket } = request;
  if (request.complete || (!request.headers['content-length'] && !request.headers['transfer-encoding'])) return;
  const from = socket.bytesRead;
  let seen = from;
  let still = 0;
  const every = Math.min(1000, figures.idle / 4);
  const timer = setInterval(() => {
    if (request.complete) return clearInterval(timer);
    // Data that was read but not consumed is no stall.
    still = socket.bytesRead === seen && request.readableLength === 0 ? still + every : 0;
    seen = socket.bytesRead;
    const long = seen - from > figures.body + 64 * 1024;
    if (!long && still < figures.idle) return;
    clearInterval(timer);
    if (!response.headersSent)
      turnAway(
        long ? 413 : 408,
        long
          ? `This is larger than ${figures.body / 1024 ** 2} MB, the most that is taken anywhere.`
          : `Nothing of this came for ${figures.idle / 1000} seconds, so it is not waited for; send it again.`,
      );
    else endSocket(request);
  }, every);
  timer.unref();
  response.once('close', () => clearInterval(timer));
}

/** Explains why a request cannot be parsed, or came too slowly. */
function badRequest(error: NodeJS.ErrnoException, socket: Duplex): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
  const [status, words] =
    error.code === 'HPE_HEADER_OVERFLOW'
      ? ['431 Request Header Fields Too Large', 'The headers of this request are larger than 16 kB.']
      : error.code === 'ERR_HTTP_REQUEST_TIMEOUT'
        ? ['408 Request Timeout', 'This request came too slowly.']
        : ['400 Bad Request', 'This cannot be read as a request.'];
  metrics().refused.inc({ why: status.slice(0, 3) });
  const body = JSON.stringify({ error: words });
  socket.end(
    `HTTP/1.1 ${status}\r\nContent-Type: application/json\r\nCache-Control: no-store\r\nContent-Length: ${body.length}\r\nConnection: close\r\n\r\n${body}`,
  );
}
