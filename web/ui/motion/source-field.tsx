'use client';

import { Box, Text, chakra } from '@chakra-ui/react';
import {
  addressKey,
  isColourPlace,
  numbersOf,
  setValue,
  valuesOf,
  type ColourPlace,
  type NumberPlace,
} from '@maypole/core/piece/addresses';
import { circleThrough, describeCircle } from '@maypole/core/piece/link';
import { isMoving } from '@maypole/core/time/value';
import { useMemo, useState } from 'react';
import { useEditor } from '../state/store';

const SHOWN = 60;

const words = (p: Pick<NumberPlace, 'place' | 'title'>) => `${p.place}: ${p.title}`;

/**
 * Picks the value to follow, by name. Moving ones come first; one that would close a cycle is refused, naming the
 * cycle.
 */
export function SourceField({
  label,
  value,
  own,
  colour,
  onChange,
}: {
  label: string;
  value: string;
  own: string;
  colour: boolean;
  onChange: (value: string) => void;
}) {
  const piece = useEditor((s) => s.piece);
  const [search, setSearch] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const all = useMemo(() => {
    const places = colour ? valuesOf(piece).filter(isColourPlace) : numbersOf(piece);
    return places
      .filter((p) => addressKey(p.address) !== own)
      .sort((a, b) => Number(isMoving(b.value)) - Number(isMoving(a.value)));
  }, [piece, own, colour]);
  const chosen = all.find((p) => addressKey(p.address) === value);
  const found =
    search === null ? [] : all.filter((p) => words(p).toLowerCase().includes(search.toLowerCase())).slice(0, SHOWN);

  const choose = (key: string) => {
    // Tried on a copy of the piece: would the value follow itself?
    const place = valuesOf(piece).find((p) => addressKey(p.address) === own);
    const tried = place ? setValue(piece, place.address, { motion: 'follow', of: key }) : piece;
    const circle = circleThrough(tried, own);
    if (circle) return setRefused(`It would follow itself: ${describeCircle(circle)}. Choose another value.`);
    setRefused(null);
    setSearch(null);
    onChange(key);
  };

  return (
    <Box w="100%" position="relative">
      <chakra.input
        role="combobox"
        aria-label={label}
        aria-expanded={search !== null}
        aria-controls="follow-list"
        placeholder={colour ? 'Find a colour' : 'Find a value'}
        value={search ?? (chosen ? words(chosen) : value === '' ? '' : 'gone')}
        onFocus={() => setSearch('')}
        onChange={(e) => setSearch(e.target.value)}
        onBlur={() => setTimeout(() => setSearch(null), 150)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter' && found[0]) choose(addressKey(found[0].address));
          if (e.key === 'Escape') setSearch(null);
        }}
        w="100%"
        h="26px"
        px="2"
        bg="field"
        borderRadius="field"
        fontSize="12.5px"
      />
      {search !== null && <Options found={found} value={value} onChoose={choose} />}
      {refused && <Refused words={refused} />}
    </Box>
  );
}

/** Values or colours that can be followed. */
function Options({
  found,
  value,
  onChoose,
}: {
  found: readonly (NumberPlace | ColourPlace)[];
  value: string;
  onChoose: (key: string) => void;
}) {
  return (
    <Box
      id="follow-list"
      role="listbox"
      aria-label="Values"
      mt="1"
      maxH="150px"
      overflowY="auto"
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="field"
    >
      {found.length === 0 && (
        <Text px="2" py="1.5" fontSize="12px" color="muted">
          Nothing found
        </Text>
      )}
      {found.map((p) => (
        <chakra.button
          key={addressKey(p.address)}
          type="button"
          role="option"
          aria-selected={addressKey(p.address) === value}
          onMouseDown={(e) => {
            e.preventDefault();
            onChoose(addressKey(p.address));
          }}
          display="flex"
          alignItems="center"
          gap="2"
          w="100%"
          px="2"
          py="1"
          fontSize="12px"
          textAlign="left"
          cursor="pointer"
          _hover={{ bg: 'field' }}
        >
          <Box w="4px" h="14px" borderRadius="full" bg={p.colour ?? 'muted'} flexShrink={0} />
          <Text truncate flex="1">
            {words(p)}
          </Text>
          {isMoving(p.value) && (
            <Text fontSize="11px" color="muted">
              {p.value.motion}
            </Text>
          )}
        </chakra.button>
      ))}
    </Box>
  );
}

function Refused({ words }: { words: string }) {
  return (
    <Box
      role="alert"
      mt="1"
      px="2"
      py="1.5"
      bg="poppyWash"
      color="poppyText"
      borderRadius="field"
      fontSize="12px"
      lineHeight="1.4"
    >
      {words}
    </Box>
  );
}
