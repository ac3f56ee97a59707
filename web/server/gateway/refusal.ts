import { refusal } from '../http/guard';
import { FRONT } from './figures';

/** An answer given before the application is asked. */
interface Refusal {
  readonly status: 400 | 403 | 405 | 413;
  readonly error: string;
}

/** Methods of all routes. */
export const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE'];

interface Asked {
  /** Whether it came over TLS. */
  readonly secure: boolean;
  readonly method: string;
  readonly url: string;
  readonly host: string | null;
  readonly origin: string | null;
  /** Content length; NaN if it is no number. */
  readonly length: number;
  readonly allowed?: string;
}

/** Why a request is refused, whatever its route; undefined if it is not. */
export function refusalOf({ secure, method, url, host, origin, length, allowed }: Asked): Refusal | undefined {
  if (!METHODS.includes(method)) return { status: 405, error: `Maypole does not know the method ${method}.` };
  try {
    decodeURIComponent(url.split('?')[0]);
  } catch {
    return { status: 400, error: 'This address has a “%” that stands for nothing; write “%25” for the sign itself.' };
  }
  if (url.includes('%00')) return { status: 400, error: 'An address cannot have a zero in it.' };
  const foreign = refusal(method, host, origin, allowed, secure);
  if (foreign) return { status: 403, error: foreign };
  if (!(length <= FRONT.body))
    return { status: 413, error: `This is larger than ${FRONT.body / 1024 ** 2} MB, the most that is taken anywhere.` };
  return undefined;
}
