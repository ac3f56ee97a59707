import { useLayoutEffect, useRef, useState } from 'react';

/** Functions that are the same at every rendering and do what those of the latest do. To be called by hands, not while rendering. */
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
