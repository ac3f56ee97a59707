/** Loaded before the server: requests that it fails on before anything of ours is asked are answered in a sentence. */
import http from 'node:http';

const UNKNOWN = new Set(['TRACE', 'CONNECT', 'TRACK']);

/** Why a request cannot be read, and how that is answered; undefined for one that can. */
function trouble({ method, url }) {
  if (UNKNOWN.has(method)) return { status: 405, error: `Maypole does not know the method ${method}.` };
  try {
    decodeURIComponent(url.split('?')[0]);
  } catch {
    return { status: 400, error: 'This address has a “%” that stands for nothing; write “%25” for the sign itself.' };
  }
  if (url.includes('%00')) return { status: 400, error: 'An address cannot have a zero in it.' };
  return undefined;
}

const { emit } = http.Server.prototype;
http.Server.prototype.emit = function (event, ...rest) {
  const [request, response] = rest;
  const why = event === 'request' ? trouble(request) : undefined;
  if (!why) return emit.call(this, event, ...rest);
  response.writeHead(why.status, {
    'Content-Type': 'application/json',
    ...(why.status === 405 ? { Allow: 'GET, HEAD, POST, PUT, DELETE' } : {}),
  });
  response.end(JSON.stringify({ error: why.error }));
  return true;
};
