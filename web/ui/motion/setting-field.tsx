'use client';

import { widened } from '@maypole/core/declare/widen';
import type { Param } from '@maypole/core/declare/params';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import { Text } from '@chakra-ui/react';
import { ColourField } from '../fields/colour-field';
import { ParamField } from '../fields/param-field';
import { SelectField } from '../fields/select-field';
import { SwitchField } from '../fields/switch-field';
import { CurveField } from './curve-field';
import { FormulaField } from './formula-field';
import { SourceField } from './source-field';
import { StopsField } from './stops-field';

interface Props {
  readonly setting: Param;
  readonly value: unknown;
  /** Key of the address that must not be followed from here, and whether colours are wanted. */
  readonly own: string;
  readonly wantsColour?: boolean;
  readonly onChange: (value: unknown, gesture?: string) => void;
}

/** The field of a motion's setting, by its declaration. */
export function SettingField({ setting, value, own, wantsColour, onChange }: Props) {
  const label = setting.title;
  switch (setting.type) {
    case 'choice':
      return <SelectField label={label} value={value as string} options={setting.options} onChange={onChange} />;
    case 'switch':
      return <SwitchField label={label} value={value as boolean} onChange={onChange} />;
    case 'colour':
      return <ColourField label={label} value={value as string} onChange={onChange} />;
    case 'formula':
      return <FormulaField label={label} value={value as string} onChange={onChange} />;
    case 'source':
      return (
        <SourceField
          label={label}
          value={value as string}
          own={own}
          colour={wantsColour ?? false}
          onChange={onChange}
        />
      );
    case 'curve':
      return <CurveField label={label} value={value as readonly number[]} onChange={onChange} />;
    case 'stops':
      return <StopsField label={label} value={widened(value)} onChange={onChange} />;
    case 'keys':
      return (
        <Text fontSize="12.5px" color="muted">
          {(value as readonly KeyDoc[]).length} {(value as readonly KeyDoc[]).length === 1 ? 'key' : 'keys'}, shaped in
          the lane below
        </Text>
      );
    case 'number':
      return <ParamField label={label} param={setting} value={value as number} onChange={onChange} />;
    default:
      return null;
  }
}
