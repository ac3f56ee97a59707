import { useLayoutEffect, useRef, useState } from 'react';

/** Functions with a stable identity that call the latest ones. For event handlers, not for rendering. */
export function useSteady<F extends object>(functions: F): F {
  const latest = useRef(functions);
  useLayoutEffect(() => {
    latest.current = functions;
  });
  const [steady] = useState(
    () =>
      Object.fromEntries(
        Object.keys(functions).map((name) => [
          name,
          (...list: unknown[]) => (latest.current as Record<string, (...l: unknown[]) => unknown>)[name](...list),
        ]),
      ) as F,
  );
  return steady;
}
