'use client';

import { Text, chakra } from '@chakra-ui/react';
import { SHAPE_FILES } from '@maypole/core/files/import-shape';
import { writePgm } from '@maypole/core/files/pgm';
import { FileUp } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { assetName, keepAsset } from '../api';
import { tell, tellTrouble } from '../parts/toasts';

interface Props {
  readonly label: string;
  readonly accepts: 'shape' | 'picture';
  readonly value: string;
  readonly onChange: (value: string) => void;
}

/** Pictures are made no larger than this; a displacement needs no more. */
const MOST_SIDE = 2048;

/** A file kept beside the piece: choose one, or drop it here. */
export function AssetField({ label, accepts, value, onChange }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const name = useName(value);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    try {
      const kept =
        accepts === 'picture'
          ? await keepAsset(file.name.replace(/\.[^.]*$/, '.pgm'), await greyscale(file))
          : await keepAsset(file.name, file);
      onChange(kept.fingerprint);
      tell(`${file.name}: ${kept.words}.`);
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
        accept={accepts === 'shape' ? SHAPE_FILES.join(',') : 'image/*'}
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

/** A picture as brightness alone (Rec. 709 weights), no larger than is of use. */
async function greyscale(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('this is not a picture the browser can read; use PNG, JPEG or WebP.');
  });
  const scale = Math.min(1, MOST_SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [
    Math.max(1, Math.round(picture.width * scale)),
    Math.max(1, Math.round(picture.height * scale)),
  ];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.fillStyle = '#808080';
  context.fillRect(0, 0, width, height);
  context.drawImage(picture, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  const values = new Float32Array(width * height);
  for (let i = 0; i < values.length; i++)
    values[i] = (0.2126 * data[4 * i] + 0.7152 * data[4 * i + 1] + 0.0722 * data[4 * i + 2]) / 255;
  return new Blob([writePgm(width, height, values) as Uint8Array<ArrayBuffer>]);
}
