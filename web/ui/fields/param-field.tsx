'use client';

import { chakra } from '@chakra-ui/react';
import { inTimeUnit, timeUnitOf } from '@maypole/core/declare/lasting';
import type { NumberParam, VectorParam } from '@maypole/core/declare/params';
import type { Address } from '@maypole/core/piece/addresses';
import { setTimeUnit, useTimeUnit } from '../state/time-unit';
import { useEditor, type EditorState } from '../state/store';
import { NumberField } from './number-field';

interface Props {
  readonly label: string;
  readonly param: NumberParam | VectorParam;
  readonly value: number;
  /** If a motion drives it: its value at each frame, instead of `value`. */
  readonly live?: (s: EditorState) => number;
  readonly driven?: boolean;
  readonly mixed?: boolean;
  readonly onDriven?: () => void;
  readonly onChange: (value: number, gesture: string, joined: readonly Address[]) => void;
  readonly onWords?: (text: string) => string | null | undefined;
  readonly addresses?: readonly Address[];
}

/** The field of a declared number. Durations are shown in frames or %, as chosen once for all. */
export function ParamField({ param, live, ...rest }: Props) {
  const stored = param.type === 'number' ? timeUnitOf(param) : null;
  const shown = useTimeUnit((s) => s.unit);
  const frames = useEditor((s) => s.piece.loop.frames);
  const { unit, min, max, soft, step, integer } = param;
  if (!stored) return <NumberField {...rest} {...{ live, unit, min, max, soft, step, integer }} />;
  const to = (x: number) => Number(inTimeUnit(x, stored, shown, frames).toPrecision(12));
  const back = (x: number) => {
    const value = Number(inTimeUnit(x, shown, stored, frames).toPrecision(12));
    return Math.max(min, Math.min(max, integer ? Math.round(value) : value));
  };
  const other = shown === '%' ? 'frames' : '%';
  return (
    <>
      <NumberField
        {...rest}
        value={to(rest.value)}
        live={live && ((s) => to(live(s)))}
        unit={shown}
        noUnit
        min={to(min)}
        max={to(max)}
        soft={[to(soft[0]), to(soft[1])]}
        step={shown === stored ? step : shown === '%' ? 0.5 : 1}
        integer={integer && shown === stored}
        onChange={(x, gesture, joined) => rest.onChange(back(x), gesture, joined)}
      />
      <chakra.button
        type="button"
        aria-label={`${rest.label} is shown in ${shown}; show times in ${other}`}
        title={`Show times in ${other}`}
        minW="44px"
        px="1"
        ml="1"
        h="24px"
        borderRadius="field"
        fontSize="11px"
        color="muted"
        textAlign="left"
        cursor="pointer"
        _hover={{ bg: 'field', color: 'ink' }}
        onClick={() => setTimeUnit(other)}
      >
        {shown}
      </chakra.button>
    </>
  );
}
