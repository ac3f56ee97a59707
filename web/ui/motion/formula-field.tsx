'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { VARIABLES } from '@maypole/core/time/formula/words';
import { formulaFault } from '@maypole/core/time/motions/formula';
import { useEffect, useState } from 'react';
import { useEditor } from '../state/store';

/**
 * A formula. An invalid one stays in the field with a mark under the character; the motion keeps the last valid one.
 */
export function FormulaField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string, gesture: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const frames = useEditor((s) => s.piece.loop.frames);
  const shown = typed ?? value;
  const wrong = typed === null ? null : formulaFault(typed, frames);
  // An undo elsewhere updates the field.
  useEffect(() => setTyped((t) => (t !== null && !formulaFault(t, frames) ? null : t)), [value, frames]);

  const type = (text: string) => {
    setTyped(text);
    if (!formulaFault(text, frames)) onChange(text, 'typing');
  };
  return (
    <Box w="100%">
      <chakra.textarea
        aria-label={label}
        aria-invalid={wrong !== null}
        aria-describedby="formula-fault"
        rows={Math.min(4, Math.ceil(Math.max(shown.length, 1) / 34))}
        spellCheck={false}
        value={shown}
        onChange={(e) => type(e.target.value.replace(/\n/g, ' '))}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') e.preventDefault();
          if (e.key === 'Escape') setTyped(null);
        }}
        w="100%"
        px="2"
        py="1.5"
        display="block"
        resize="none"
        borderRadius="field"
        bg="field"
        borderWidth="1px"
        borderColor={wrong ? 'poppy' : 'transparent'}
        fontFamily="mono"
        fontSize="12px"
        fontWeight="600"
        lineHeight="1.5"
      />
      {wrong && (
        <Box
          id="formula-fault"
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
          <Text fontFamily="mono" fontSize="11.5px" whiteSpace="pre-wrap" wordBreak="break-all" mb="0.5">
            {shown.slice(0, wrong.at)}
            <Box as="span" bg="poppy" color="white" borderRadius="2px" px="1px">
              {shown[wrong.at] ?? '␣'}
            </Box>
            {shown.slice(wrong.at + 1)}
          </Text>
          {wrong.message}
        </Box>
      )}
      <Flex wrap="wrap" gap="1" mt="1.5">
        {VARIABLES.map((v) => (
          <chakra.button
            key={v.name}
            type="button"
            title={v.help}
            aria-label={`Put in ${v.name}: ${v.help}`}
            onClick={() => type(`${shown}${/[\w.)]\s*$/.test(shown) ? '*' : ''}${v.name}`)}
            px="1.5"
            py="0.5"
            borderRadius="4px"
            bg="field"
            color="muted"
            fontFamily="mono"
            fontSize="11px"
            cursor="pointer"
            _hover={{ color: 'ink', bg: 'fill' }}
          >
            {v.name}
          </chakra.button>
        ))}
        <Text fontSize="11px" color="muted" alignSelf="center" ml="1">
          sin cos abs mod ^ pi …
        </Text>
      </Flex>
    </Box>
  );
}
