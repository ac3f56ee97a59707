'use client';

import { Text, chakra } from '@chakra-ui/react';
import type { AssetParam } from '@maypole/core/declare/params';
import { FileUp } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { assetName, keepAsset } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { takers } from './take-file';

interface Props {
  readonly label: string;
  readonly accepts: AssetParam['accepts'];
  readonly value: string;
  readonly onChange: (value: string) => void;
}

/** A file kept beside the piece: choose one, or drop it here. */
export function AssetField({ label, accepts, value, onChange }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const name = useName(value);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    try {
      const { name: as, bytes, mended } = await takers[accepts].take(file);
      const kept = await keepAsset(as, bytes);
      onChange(kept.fingerprint);
      tell(`${file.name}: ${kept.words}.${mended ? ` ${mended}.` : ''}`);
    } catch (error) {
      tellTrouble(error instanceof Error ? `${file.name}: ${error.message}` : `${file.name} cannot be read.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <chakra.button
        type="button"
        aria-label={`${label}: ${name}`}
        title={name}
        onClick={() => input.current?.click()}
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault();
          void take(e.dataTransfer.files[0]);
        }}
        display="flex"
        alignItems="center"
        gap="1.5"
        w="100%"
        h="24px"
        px="2"
        bg="field"
        borderRadius="field"
        cursor="pointer"
        fontSize="12.5px"
        fontWeight="500"
        minW="0"
      >
        <FileUp size={13} aria-hidden="true" style={{ flexShrink: 0 }} />
        <Text truncate>{busy ? 'Reading…' : name}</Text>
      </chakra.button>
      <input
        ref={input}
        type="file"
        hidden
        data-testid={`file-${accepts}`}
        accept={takers[accepts].accept}
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
    </>
  );
}

function useName(fingerprint: string): string {
  const [known, setKnown] = useState<{ fingerprint: string; name: string | null }>({ fingerprint: '', name: null });
  useEffect(() => {
    if (fingerprint === '' || known.fingerprint === fingerprint) return;
    let here = true;
    void assetName(fingerprint).then((name) => here && setKnown({ fingerprint, name: name ?? 'Not here' }));
    return () => {
      here = false;
    };
  }, [fingerprint, known.fingerprint]);
  if (fingerprint === '') return 'Choose…';
  return known.fingerprint === fingerprint ? (known.name ?? 'File') : 'File';
}
