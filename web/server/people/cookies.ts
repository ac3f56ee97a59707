/** Cookies set by the accounts library, to be set by our answer. */
export function cookiesOf(answer: Response): Headers {
  const headers = new Headers();
  for (const cookie of answer.headers.getSetCookie()) headers.append('Set-Cookie', cookie);
  return headers;
}
