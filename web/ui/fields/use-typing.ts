'use client';

import { parseQuantity, QuantityError } from '@maypole/core/time/quantity';
import { useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { useEditor } from '../state/store';
import { valueBeside } from './beside-fields';
import type { NumberProps } from './number-props';

let typings = 0;

/** Why a number cannot be taken; null if it can. */
function rangeFault(
  x: number,
  { unit, min, max, integer }: Pick<NumberProps, 'unit' | 'min' | 'max' | 'integer'>,
): string | null {
  const of = unit ? ` ${unit}` : '';
  if (x < min) return `${x}${of} is below the smallest, ${min}${of}.`;
  if (x > max) return `${x}${of} is above the largest, ${max}${of}.`;
  return integer && !Number.isInteger(x) ? `${Number(x.toFixed(4))} is not whole; use ${Math.round(x)}.` : null;
}

/**
 * Typing into a number: what is typed, what is wrong with it, and where focus goes afterwards.
 *
 * @param now the present value
 * @param field the element that has focus while nothing is typed
 */
export function useTyping(props: NumberProps, now: () => number, field: RefObject<HTMLElement | null>) {
  const { unit, mixed, onChange, onWords } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const selectAll = useRef(false);
  // After typing, focus goes on to the next value, or stays at the field: nothing else receives the key that ended it.
  const comeBack = useRef<'here' | 1 | -1 | null>(null);
  useLayoutEffect(() => {
    if (typed === null && comeBack.current && field.current)
      ((comeBack.current !== 'here' && valueBeside(field.current, comeBack.current)) || field.current).focus();
    comeBack.current = null;
  }, [typed, field]);
  const drop = () => {
    setTyped(null);
    setTrouble(null);
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
    const problem = rangeFault(x, props);
    if (problem) {
      setTrouble(problem);
      return false;
    }
    drop();
    if (x !== now() || mixed) onChange(x, `typed-${++typings}`, []);
    return true;
  };

  return {
    typed,
    trouble,
    forgive: () => setTrouble(null),
    begin: (text: string, select: boolean) => {
      selectAll.current = select;
      setTyped(text);
    },
    input: {
      selectAll: selectAll.current,
      onText: (text: string) => {
        setTyped(text);
        setTrouble(null);
      },
      onCommit: (focus: 1 | -1 | null) => {
        if (focus !== null) comeBack.current = focus;
        if (typed === null || commit(typed)) return;
        comeBack.current = null;
        // Left with something that cannot be taken, the field keeps what it had.
        if (focus === null) drop();
      },
      onCancel: () => {
        comeBack.current = 'here';
        drop();
      },
    },
  };
}
