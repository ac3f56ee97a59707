/** Numbers 0 to n − 1, repeatedly halving the gaps: what fills in that way moves early, and ever more smoothly. */
export function halvesFirst(n: number): number[] {
  return [...Array(n).keys()].sort((a, b) => halvings(b, n) - halvings(a, n) || a - b);
}

/** How many times a number can be halved: the more, the earlier it comes. */
function halvings(i: number, n: number): number {
  if (i === 0) return n;
  let [left, times] = [i, 0];
  while (left % 2 === 0) [left, times] = [left / 2, times + 1];
  return times;
}
