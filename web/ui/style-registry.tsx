'use client';

import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { useServerInsertedHTML } from 'next/navigation';
import { useState, type ReactNode } from 'react';

/** Puts the styles of server rendering into the head, so that the first paint has them. */
export function StyleRegistry({ children, nonce }: { children: ReactNode; nonce?: string }) {
  const [{ cache, flush }] = useState(() => {
    const cache = createCache({ key: 'css', nonce });
    cache.compat = true;
    const insert = cache.insert;
    let fresh: string[] = [];
    cache.insert = (...args) => {
      if (cache.inserted[args[1].name] === undefined) fresh.push(args[1].name);
      return insert(...args);
    };
    return {
      cache,
      flush: () => {
        const names = fresh;
        fresh = [];
        return names;
      },
    };
  });
  useServerInsertedHTML(() => {
    const names = flush();
    if (names.length === 0) return null;
    const styles = names.map((name) => (typeof cache.inserted[name] === 'string' ? cache.inserted[name] : '')).join('');
    return (
      <style
        key={cache.key}
        data-emotion={`${cache.key} ${names.join(' ')}`}
        nonce={nonce}
        dangerouslySetInnerHTML={{ __html: styles }}
      />
    );
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}
