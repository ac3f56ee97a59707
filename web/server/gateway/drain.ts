import type { IncomingMessage, ServerResponse } from 'node:http';
import type { FrontFigures } from './figures';

/**
 * Reads on for a moment, and throws away, what is still to come of a body that nobody wants. Closed at once, a
 * connection with something unread is reset, and a client that is still sending loses the answer (RFC 9112, 9.6).
 *
 * @param then done once it has come to its end, or enough of it, or the moment is over
 */
export function drain(
  request: IncomingMessage,
  { linger: most, lingerBytes }: Pick<FrontFigures, 'linger' | 'lingerBytes'>,
  then: () => void,
): void {
  if (request.complete || request.destroyed) return then();
  const from = request.socket.bytesRead;
  let over = false;
  const finish = () => {
    if (over) return;
    over = true;
    clearTimeout(timer);
    request.off('data', look).off('end', finish).off('close', finish).off('error', finish);
    then();
  };
  const look = () => {
    if (request.socket.bytesRead - from > lingerBytes) finish();
  };
  const timer = setTimeout(finish, most);
  timer.unref();
  request.on('data', look).once('end', finish).once('close', finish).once('error', finish);
  request.resume();
}

/**
 * Has a response wait with its end for what is still to come of its request, a moment long: all of the answer is on its
 * way by then, and Node.js closes the connection with the end where the client will not use it again.
 */
export function endDraining(
  request: IncomingMessage,
  response: ServerResponse,
  figures: Pick<FrontFigures, 'linger' | 'lingerBytes'>,
): void {
  const end = response.end.bind(response) as (done?: () => void) => ServerResponse;
  const ended = (first?: unknown, second?: unknown, third?: unknown): ServerResponse => {
    response.end = end as typeof response.end;
    const done = [first, second, third].find((x): x is () => void => typeof x === 'function');
    if (typeof first === 'string' || first instanceof Uint8Array)
      response.write(first, typeof second === 'string' ? (second as BufferEncoding) : 'utf8');
    drain(request, figures, () => void end(done));
    return response;
  };
  response.end = ended as typeof response.end;
}
