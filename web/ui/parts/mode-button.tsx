'use client';

import { ClientOnly } from '@chakra-ui/react';
import { Moon, Sun } from 'lucide-react';
import { useTheme } from 'next-themes';
import { PictureButton } from './buttons';

/** Switches between paper and dusk. */
export function ModeButton() {
  const { resolvedTheme, setTheme } = useTheme();
  const dusk = resolvedTheme === 'dark';
  return (
    <ClientOnly
      fallback={
        <PictureButton label="Dusk mode">
          <Moon size={17} />
        </PictureButton>
      }
    >
      <PictureButton label={dusk ? 'Paper mode' : 'Dusk mode'} onClick={() => setTheme(dusk ? 'light' : 'dark')}>
        {dusk ? <Sun size={17} /> : <Moon size={17} />}
      </PictureButton>
    </ClientOnly>
  );
}
