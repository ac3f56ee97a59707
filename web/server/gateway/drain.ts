import type { IncomingMessage, ServerResponse } from 'node:http';
import type { FrontFigures } from './figures';

/**
 * Reads and discards the rest of an unwanted body for a moment. A connection closed with unread data is reset, and a
 * client that is still sending would lose the answer (RFC 9112, 9.6).
 *
 * @param then called once the body has ended, enough of it was read, or the moment is over
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
 * Delays the end of a response while its request is still coming, for a moment: by then the whole answer is on its way,
 * and Node.js closes the connection if the client will not reuse it.
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
