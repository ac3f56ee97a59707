/** The cookies that an answer of the accounts library sets, to be set by ours. */
export function cookiesOf(answer: Response): Headers {
  const headers = new Headers();
  for (const cookie of answer.headers.getSetCookie()) headers.append('Set-Cookie', cookie);
  return headers;
}
