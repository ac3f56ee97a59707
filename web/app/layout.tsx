import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/figtree';
import '@fontsource-variable/jetbrains-mono';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Provider } from '@/ui/provider';

export const metadata: Metadata = { title: 'Maypole', description: 'Seamless looping 3D motion.' };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Provider nonce={nonce}>{children}</Provider>
      </body>
    </html>
  );
}
