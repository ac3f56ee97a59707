'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { unitWord } from '@maypole/core/declare/unit-word';
import { parseQuantity, QuantityError } from '@maypole/core/time/quantity';
import type { Address } from '@maypole/core/piece/addresses';
import { useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useLive } from '../state/live';
import { useEditor, type EditorState } from '../state/store';
import { newDrag } from '../state/undo';
import { addressesOf, fieldsUntil, noteJoinable, valueBeside } from './beside-fields';

interface Props {
  readonly label: string;
  readonly value: number;
  /** If a motion drives it: its value at each frame, instead of `value`. */
  readonly live?: (s: EditorState) => number;
  readonly unit?: string;
  /** The unit is shown beside the field. */
  readonly noUnit?: boolean;
  readonly min: number;
  readonly max: number;
  readonly soft: readonly [number, number];
  readonly step: number;
  readonly integer?: boolean;
  /** Shown but not editable here: a motion drives it. */
  readonly driven?: boolean;
  /** Several values are edited at once and differ. */
  readonly mixed?: boolean;
  /** `gesture` is the same for all changes of a drag; `joined` are other values that it sets alike. */
  readonly onChange: (value: number, gesture: string, joined: readonly Address[]) => void;
  readonly onDriven?: () => void;
  /** Takes what is typed and may be more than a number; says what is wrong with it, null if it was taken. */
  readonly onWords?: (text: string) => string | null | undefined;
  /** What it sets; a drag that begins downwards or upwards sets the fields that it passes alike. */
  readonly addresses?: readonly Address[];
}

const DRAG_PIXELS = 3;
/** A drag that first goes this far down or up sets a whole column. */
const COLUMN_PIXELS = 12;

interface Drag {
  x: number;
  readonly y: number;
  value: number;
  moved: boolean;
  column: boolean;
  readonly gesture: string;
  readonly joined: Set<HTMLElement>;
}

let typings = 0;

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
export function NumberField(props: Props) {
  const { label, live, unit, noUnit, min, max, soft, step, integer, driven, mixed, onChange, onDriven, onWords } =
    props;
  const { addresses } = props;
  const now = () => (live ? live(useEditor.getState()) : props.value);
  const value = now();
  const [typed, setTyped] = useState<string | null>(null);
  const selectAll = useRef(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
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
  // After typing, focus goes on to the next value, or stays at the field: nothing else receives the key that ended it.
  const comeBack = useRef<'here' | 1 | -1 | null>(null);
  useLayoutEffect(() => {
    if (typed === null && comeBack.current && field.current)
      ((comeBack.current !== 'here' && valueBeside(field.current, comeBack.current)) || field.current).focus();
    comeBack.current = null;
  }, [typed, field]);
  const drag = useRef<Drag | null>(null);
  useLayoutEffect(() => {
    if (field.current && addresses)
      noteJoinable(field.current, { addresses, range: `${unit} ${min} ${max} ${integer}` });
  });

  const hold = (x: number) => Math.max(min, Math.min(max, integer ? Math.round(x) : Number(x.toFixed(6))));

  const type = () => {
    selectAll.current = true;
    setTyped(`${Number(now().toFixed(6))}`);
  };
  const down = (event: PointerEvent) => {
    if (event.button !== 0 || typed !== null || driven) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { clientX: x, clientY: y } = event;
    drag.current = {
      x,
      y,
      value: now(),
      moved: false,
      gesture: newDrag(),
      joined: new Set(),
      column: false,
    };
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const dx = event.clientX - d.x;
    const dy = Math.abs(event.clientY - d.y);
    d.column ||= !d.moved && dy > COLUMN_PIXELS && dy > 2 * Math.abs(dx);
    if (!d.moved && !d.column && Math.abs(dx) < DRAG_PIXELS) return;
    d.moved = true;
    if (d.column && field.current)
      for (const other of fieldsUntil(field.current, event.clientY)) {
        d.joined.add(other);
        other.dataset.joined = '';
      }
    // The usual range spans about two field widths, so that the hand need not be very steady.
    const width = (box.current?.offsetWidth ?? 90) * 2;
    const per = ((soft[1] - soft[0]) / width) * (event.shiftKey ? 0.1 : 1);
    const raw = d.value + dx * per;
    d.x = event.clientX;
    d.value = raw;
    const grain = event.shiftKey && !integer ? step / 10 : step;
    onChange(hold(Math.round(raw / grain) * grain), d.gesture, addressesOf(d.joined));
  };
  const letGo = () => {
    const d = drag.current;
    drag.current = null;
    for (const other of d?.joined ?? []) delete other.dataset.joined;
    return d;
  };
  const up = () => {
    if (letGo()?.moved === false) type();
  };
  const keys = (event: KeyboardEvent) => {
    if (typed !== null) return;
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (by !== undefined && !driven) {
      event.preventDefault();
      event.stopPropagation();
      onChange(hold(now() + by * step * (event.shiftKey ? 10 : 1)), 'keys', []);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (driven || event.shiftKey) onDriven?.();
      else type();
    } else if (/^[-0-9.(]$/.test(event.key) && (!driven || onWords)) {
      event.preventDefault();
      selectAll.current = false;
      setTyped(event.key);
    }
  };
  const commit = (text: string): boolean => {
    const words = onWords?.(text);
    if (words !== undefined) {
      setTrouble(words);
      if (words === null) setTyped(null);
      return words === null;
    }
    let x: number;
    try {
      const exact = parseQuantity(text, unit ?? '', useEditor.getState().piece.loop ?? { frames: 100, fps: 25 });
      // Converting from a unit may miss a round number by its last digit.
      x = Number(exact.toPrecision(12));
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      setTrouble(error.message);
      return false;
    }
    const of = unit ? ` ${unit}` : '';
    const problem =
      x < min
        ? `${x}${of} is below the smallest, ${min}${of}.`
        : x > max
          ? `${x}${of} is above the largest, ${max}${of}.`
          : integer && !Number.isInteger(x)
            ? `${Number(x.toFixed(4))} is not whole; use ${Math.round(x)}.`
            : null;
    if (problem) {
      setTrouble(problem);
      return false;
    }
    setTrouble(null);
    setTyped(null);
    if (x !== now() || mixed) onChange(x, `typed-${++typings}`, []);
    return true;
  };

  return (
    <Box position="relative" ref={box} flex="1" minW="0">
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
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={letGo}
          onKeyDown={keys}
          onClick={driven ? onDriven : undefined}
          onBlur={() => setTrouble(null)}
        >
          {!driven && !mixed && (
            <Box
              data-bar
              position="absolute"
              inset="0"
              right="auto"
              bg="fill"
              style={{ width: `${shareOf(value) * 100}%` }}
            />
          )}
          <Box data-words position="relative" fontWeight="600" color={mixed ? 'muted' : undefined}>
            {wordsOf(value)}
          </Box>
          {unit && !noUnit && (
            <Box data-unit position="relative" color="muted" fontSize="11px" whiteSpace="nowrap">
              {unitWord(unit, value)}
            </Box>
          )}
        </Flex>
      ) : (
        <chakra.input
          aria-label={label}
          aria-invalid={trouble !== null}
          autoFocus
          value={typed}
          onFocus={(e) => selectAll.current && e.target.select()}
          onChange={(e) => {
            setTyped(e.target.value);
            setTrouble(null);
          }}
          onBlur={() => {
            if (!commit(typed)) {
              setTyped(null);
              setTrouble(null);
            }
          }}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') {
              e.preventDefault();
              comeBack.current = e.shiftKey ? -1 : 1;
              if (!commit(typed)) comeBack.current = null;
            }
            if (e.key === 'Escape') {
              comeBack.current = 'here';
              setTyped(null);
              setTrouble(null);
            }
          }}
          w="100%"
          h="24px"
          px="2"
          borderRadius="field"
          bg="raised"
          borderWidth="1px"
          borderColor={trouble ? 'poppy' : 'sky'}
          fontFamily="mono"
          fontSize="12px"
          fontWeight="600"
          outline="none"
        />
      )}
      {trouble && (
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
          {trouble}
        </Box>
      )}
    </Box>
  );
}
