/** Numbers from 0 to n − 1, those half way between what is there first: what fills in so moves early, and ever more finely. */
export function halvesFirst(n: number): number[] {
  return [...Array(n).keys()].sort((a, b) => halvings(b, n) - halvings(a, n) || a - b);
}

/** How many times a number goes into halves: the larger, the earlier it comes. */
function halvings(i: number, n: number): number {
  if (i === 0) return n;
  let [left, times] = [i, 0];
  while (left % 2 === 0) [left, times] = [left / 2, times + 1];
  return times;
}
