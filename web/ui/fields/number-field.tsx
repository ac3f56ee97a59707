'use client';

import { Box, Flex } from '@chakra-ui/react';
import { unitWord } from '@maypole/core/declare/unit-word';
import { useLayoutEffect, type KeyboardEvent } from 'react';
import { useLive } from '../state/live';
import { useEditor } from '../state/store';
import { noteJoinable } from './beside-fields';
import type { NumberProps } from './number-props';
import { TypedNumber } from './typed-number';
import { useNumberDrag } from './use-number-drag';
import { useTyping } from './use-typing';

/** As many decimals as the step has; up to three if the value lies between steps. */
export function formatNumber(value: number, step: number): string {
  const usual = Math.max(0, Math.min(6, -Math.floor(Math.log10(step) + 1e-9)));
  const needed = [usual, usual + 1, 2, 3].find((d) => Math.abs(Number(value.toFixed(d)) - value) < 1e-6) ?? 3;
  const text = value.toFixed(Math.max(usual, needed));
  return text === '-0' || /^-0\.0+$/.test(text) ? text.slice(1) : text;
}

/**
 * A number that scrubs: drag sideways (Shift: ten times finer), click to type, arrow keys to step
 * (Shift: ten steps). What is typed may be arithmetic, with units. The bar shows where it stands in
 * its usual range.
 */
export function NumberField(props: NumberProps) {
  const { label, live, unit, noUnit, min, max, soft, step, integer, driven, mixed, onChange, onDriven, onWords } =
    props;
  const { addresses } = props;
  const now = () => (live ? live(useEditor.getState()) : props.value);
  const value = now();
  const wordsOf = (x: number) => (mixed ? 'mixed' : formatNumber(x, step));
  const valueWords = (x: number) => (mixed ? 'mixed' : `${wordsOf(x)} ${unitWord(unit ?? '', x)}`.trim());
  const shareOf = (x: number) => Math.max(0, Math.min(1, (x - soft[0]) / (soft[1] - soft[0] || 1)));
  const field = useLive<HTMLDivElement, number>(live ?? null, (element, x) => {
    element.setAttribute('aria-valuenow', `${x}`);
    element.setAttribute('aria-valuetext', valueWords(x));
    element.querySelector('[data-words]')!.textContent = wordsOf(x);
    const said = element.querySelector('[data-unit]');
    if (said) said.textContent = unitWord(unit ?? '', x);
    const bar = element.querySelector<HTMLElement>('[data-bar]');
    if (bar) bar.style.width = `${shareOf(x) * 100}%`;
  });
  useLayoutEffect(() => {
    if (field.current && addresses)
      noteJoinable(field.current, { addresses, range: `${unit} ${min} ${max} ${integer}` });
  });

  const clamped = (x: number) => Math.max(min, Math.min(max, integer ? Math.round(x) : Number(x.toFixed(6))));

  const { typed, trouble, forgive, begin, input } = useTyping(props, now, field);
  const type = () => begin(`${Number(now().toFixed(6))}`, true);
  const { down, move, letGo } = useNumberDrag({
    field,
    span: soft[1] - soft[0],
    grain: step,
    fine: integer ? step : step / 10,
    onDrag: (x, gesture, joined) => onChange(clamped(x), gesture, joined),
  });
  const up = () => {
    if (letGo()?.moved === false) type();
  };
  const keys = (event: KeyboardEvent) => {
    if (typed !== null) return;
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (by !== undefined && !driven) {
      event.preventDefault();
      event.stopPropagation();
      onChange(clamped(now() + by * step * (event.shiftKey ? 10 : 1)), 'keys', []);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (driven || event.shiftKey) onDriven?.();
      else type();
    } else if (/^[-0-9.(]$/.test(event.key) && (!driven || onWords)) {
      event.preventDefault();
      begin(event.key, false);
    }
  };
  return (
    <Box position="relative" flex="1" minW="0">
      {typed === null ? (
        <Flex
          ref={field}
          role="spinbutton"
          tabIndex={0}
          aria-label={label}
          aria-valuenow={value}
          aria-valuemin={min}
          aria-valuemax={max}
          aria-valuetext={valueWords(value)}
          aria-readonly={driven}
          aria-keyshortcuts={onDriven ? 'Shift+Enter' : undefined}
          h="24px"
          align="center"
          justify="space-between"
          px="2"
          borderRadius="field"
          bg="field"
          cursor={driven ? 'pointer' : 'ew-resize'}
          overflow="hidden"
          position="relative"
          userSelect="none"
          touchAction="none"
          css={{ '&[data-joined]': { outline: '2px solid var(--chakra-colors-sky)', outlineOffset: '-2px' } }}
          fontFamily="mono"
          fontSize="12px"
          onPointerDown={(e) => typed === null && !driven && down(e, now())}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={letGo}
          onKeyDown={keys}
          onClick={driven ? onDriven : undefined}
          onBlur={forgive}
        >
          <Shown
            share={driven || mixed ? null : shareOf(value)}
            words={wordsOf(value)}
            unit={unit && !noUnit ? unitWord(unit, value) : ''}
            muted={mixed ?? false}
          />
        </Flex>
      ) : (
        <TypedNumber label={label} wrong={trouble !== null} {...input} text={typed} />
      )}
      {trouble && <Trouble words={trouble} />}
    </Box>
  );
}

/** What is wrong with what was typed, below the field. */
function Trouble({ words }: { words: string }) {
  return (
    <Box
      role="alert"
      position="absolute"
      zIndex="20"
      top="27px"
      left="0"
      minW="180px"
      px="2.5"
      py="1.5"
      bg="poppyWash"
      color="poppyText"
      fontSize="12px"
      borderRadius="field"
      boxShadow="float"
    >
      {words}
    </Box>
  );
}

/** A number and its unit over the bar that shows where it stands in its usual range, 0…1; null without a bar. */
function Shown({ share, words, unit, muted }: { share: number | null; words: string; unit: string; muted: boolean }) {
  return (
    <>
      {share !== null && (
        <Box data-bar position="absolute" inset="0" right="auto" bg="fill" style={{ width: `${share * 100}%` }} />
      )}
      <Box data-words position="relative" fontWeight="600" color={muted ? 'muted' : undefined}>
        {words}
      </Box>
      {unit && (
        <Box data-unit position="relative" color="muted" fontSize="11px" whiteSpace="nowrap">
          {unit}
        </Box>
      )}
    </>
  );
}
