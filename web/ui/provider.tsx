'use client';

import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import { useEffect, type ReactNode } from 'react';
import { resumeAwaiting } from './deliver/awaited';
import { Toasts } from './parts/toasts';
import { StyleRegistry } from './style-registry';
import { system } from './theme';

/** Theme, colour mode and messages for every page. */
export function Provider({ children, nonce }: { children: ReactNode; nonce?: string }) {
  useEffect(resumeAwaiting, []);
  return (
    <StyleRegistry nonce={nonce}>
      <ChakraProvider value={system}>
        <ThemeProvider
          attribute="class"
          defaultTheme="light"
          themes={['light', 'dark']}
          disableTransitionOnChange
          nonce={nonce}
        >
          {children}
          <Toasts />
        </ThemeProvider>
      </ChakraProvider>
    </StyleRegistry>
  );
}
