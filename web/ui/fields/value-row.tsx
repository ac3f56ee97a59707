'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type {
  ColourParam,
  ColourStop,
  ColourValue,
  NumberParam,
  NumberValue,
  Param,
  Points,
  StoredValue,
  VectorParam,
} from '@maypole/core/declare/params';
import { evaluateParam } from '@maypole/core/time/values';
import { addressKey, ownerKey, type Address, type Owner } from '@maypole/core/piece/addresses';
import { linkedValue } from '@maypole/core/piece/link';
import type { Values } from '@maypole/core/piece/piece';
import { evaluateColour } from '@maypole/core/time/colours/index';
import { isMoving } from '@maypole/core/time/value';
import { memo, type ReactNode } from 'react';
import { ColourMotionForm } from '../motion/colour-motion-form';
import { StopsField } from '../motion/stops-field';
import { MotionForm } from '../motion/motion-form';
import { MotionPopover, type TriggerProps } from '../motion/motion-popover';
import { nameServant } from '../state/actions';
import { useEditor } from '../state/store';
import { ColourField } from './colour-field';
import { ColourDrawing, Drawing } from './drawing';
import { AssetField } from './asset-field';
import { NoiseField } from './noise-field';
import { ParamField } from './param-field';
import { PairMark } from './pair-mark';
import { PointsField } from './points-field';
import { RibbonField } from './ribbon-field';
import { sayTyped } from './say-typed';
import { SelectField } from './select-field';
import { SwitchField } from './switch-field';
import { TextField } from './text-field';

/** The same value elsewhere, edited together with the first. */
interface Other {
  readonly owner: Owner;
  readonly stored: StoredValue;
}

interface ValueProps {
  readonly owner: Owner;
  readonly name: string;
  readonly param: Param;
  readonly stored: StoredValue;
  /** All values of its owner; a noise chooser previews with them. */
  readonly values: Values;
  readonly colour: string;
  readonly others?: readonly Other[];
  /** An extra element at the end of the row, redrawn when `told` changes. */
  readonly beside?: React.ReactNode;
  readonly told?: unknown;
}

const NONE: readonly Other[] = [];

function sameOthers(a: readonly Other[] = NONE, b: readonly Other[] = NONE): boolean {
  return (
    a.length === b.length && a.every((o, i) => o.stored === b[i].stored && ownerKey(o.owner) === ownerKey(b[i].owner))
  );
}

/**
 * One declared value: name, field, and graph of its motion. Rendered only when it changed, so that a scrub costs one
 * row.
 */
export const ValueRow = memo(
  PlainValueRow,
  (a, b) =>
    a.stored === b.stored &&
    a.param === b.param &&
    a.name === b.name &&
    a.colour === b.colour &&
    a.told === b.told &&
    ownerKey(a.owner) === ownerKey(b.owner) &&
    sameOthers(a.others, b.others) &&
    (a.param.type !== 'choice' || a.values === b.values),
);

function equal(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

function PlainValueRow({ owner, name, param, stored, values, colour, others = NONE, beside }: ValueProps) {
  const setAll = useEditor((s) => s.setValues);
  const address: Address = { owner, param: name };
  const addresses = [address, ...others.map((o): Address => ({ owner: o.owner, param: name }))];
  const change = (value: StoredValue, gesture?: string) =>
    setAll(param.title, addresses, value, gesture === undefined ? undefined : `${addressKey(address)}/${gesture}`);
  const mixed = others.some((o) => !equal(o.stored, stored));

  if (param.type === 'number')
    return (
      <NumberRow
        address={address}
        others={addresses.slice(1)}
        mixed={mixed}
        title={param.title}
        label={param.title}
        param={param}
        value={stored as NumberValue}
        colour={colour}
        beside={beside}
      />
    );
  if (param.type === 'vector')
    return (
      <VectorRows
        address={address}
        others={addresses.slice(1)}
        differ={(axis) =>
          others.some((o) => !equal((o.stored as readonly unknown[])[axis], (stored as readonly unknown[])[axis]))
        }
        param={param}
        stored={stored as readonly NumberValue[]}
        colour={colour}
      />
    );
  if (param.type === 'colour')
    return (
      <ColourRow
        address={address}
        others={addresses.slice(1)}
        mixed={mixed}
        param={param}
        value={stored as ColourValue}
        beside={beside}
      />
    );
  if (param.type === 'points')
    return (
      <Block title={param.title} help={param.help}>
        <PointsField label={param.title} value={stored as Points} onChange={change} />
      </Block>
    );
  if (param.type === 'stops')
    return (
      <Block title={param.title} help={param.help}>
        <StopsField label={param.title} open={param.open} value={stored as readonly ColourStop[]} onChange={change} />
      </Block>
    );
  if (param.type === 'text')
    return (
      <Block title={param.title} help={param.help}>
        <TextField
          label={param.title}
          value={stored as string}
          lines={param.lines}
          max={param.max}
          file={param.file}
          onChange={(v) => change(v)}
        />
      </Block>
    );
  return (
    <Row
      title={param.title}
      help={param.help}
      drawing={
        <>
          {mixed && <Mixed />}
          <PairMark address={address} label={param.title} />
        </>
      }
    >
      {param.type === 'ribbon' && (
        <RibbonField
          label={param.title}
          owner={owner}
          value={stored as string}
          onChange={(v) => (param.serves ? nameServant(param.title, addresses, v) : change(v))}
        />
      )}
      {param.type === 'asset' && (
        <AssetField label={param.title} accepts={param.accepts} value={stored as string} onChange={(v) => change(v)} />
      )}
      {param.type === 'choice' && name === 'noise' && (
        <NoiseField
          label={param.title}
          value={stored as string}
          options={param.options}
          values={values}
          onChange={(v) => change(v)}
        />
      )}
      {param.type === 'choice' && name !== 'noise' && (
        <SelectField label={param.title} value={stored as string} options={param.options} onChange={(v) => change(v)} />
      )}
      {param.type === 'switch' && (
        <SwitchField label={param.title} value={stored as boolean} onChange={(v) => change(v)} />
      )}
    </Row>
  );
}

/** A field that needs the whole width, below its title. */
function Block({ title, help, children }: { title: string; help?: string; children: ReactNode }) {
  return (
    <Box py="1">
      <Text fontSize="12.5px" title={help} mb="1">
        {title}
      </Text>
      {children}
    </Box>
  );
}

/** One row for each axis. */
function VectorRows({
  address,
  others,
  differ,
  param,
  stored,
  colour,
}: {
  address: Address;
  others: readonly Address[];
  /** Whether values that are edited together differ in an axis. */
  differ: (axis: number) => boolean;
  param: VectorParam;
  stored: readonly NumberValue[];
  colour: string;
}) {
  return (
    <>
      {([0, 1, 2] as const).map((axis) => (
        <NumberRow
          key={axis}
          address={{ ...address, axis }}
          others={others.map((a) => ({ ...a, axis }))}
          mixed={differ(axis)}
          title={axis === 0 ? param.title : ''}
          suffix={'xyz'[axis]}
          label={`${param.title} ${'xyz'[axis]}`}
          param={param}
          value={stored[axis]}
          colour={colour}
        />
      ))}
    </>
  );
}

function Mixed() {
  return (
    <Text fontSize="11.5px" color="marigoldText" fontWeight="600">
      mixed
    </Text>
  );
}

function Row({
  title,
  suffix,
  help,
  children,
  drawing,
}: {
  title: string;
  suffix?: string;
  help: string;
  children: React.ReactNode;
  drawing?: React.ReactNode;
}) {
  return (
    <Flex align="center" gap="2" minH="28px" title={help} data-name={title} data-help={help}>
      <Flex w="82px" flexShrink={0} fontSize="12.5px" justify="space-between" lineHeight="1.15">
        <Box>{title}</Box>
        {suffix && (
          <Box color="muted" fontFamily="mono" fontSize="11px" pr="1">
            {suffix}
          </Box>
        )}
      </Flex>
      <Flex w="102px" flexShrink={0} align="center">
        {children}
      </Flex>
      <Flex flex="1" minW="0" justify="flex-end" align="center" gap="1">
        {drawing}
      </Flex>
    </Flex>
  );
}

function MotionButton({
  label,
  moving,
  skipped,
  children,
  ...rest
}: TriggerProps & {
  label: string;
  moving: boolean;
  /** Tab goes from value to value; the field before it opens the motion, too. */
  skipped?: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      tabIndex={skipped ? -1 : undefined}
      aria-label={`Motion of ${label}${moving ? '' : ', still'}`}
      title={
        moving
          ? 'Its motion over the loop; Shift Enter in its field opens it'
          : 'Stands still; click to make it move, or type “0 to 1” into its field'
      }
      px="0.5"
      py="1"
      borderRadius="field"
      cursor="pointer"
      _hover={{ bg: 'field' }}
      bg={rest['aria-expanded'] ? 'field' : undefined}
      {...rest}
    >
      {children}
    </chakra.button>
  );
}

/** Width of the graph in a row that also has a swatch, in pixels. */
const BESIDE = 20;

const closeMotion = () => useEditor.setState({ motionOf: null, preview: null });

interface NumberRowProps {
  readonly address: Address;
  readonly others: readonly Address[];
  readonly mixed: boolean;
  readonly title: string;
  readonly suffix?: string;
  readonly label: string;
  readonly param: NumberParam | VectorParam;
  readonly value: NumberValue;
  readonly colour: string;
  readonly beside?: React.ReactNode;
}

/** A number, alone or one of three; of three, only the changed one is rendered. */
const NumberRow = memo(
  PlainNumberRow,
  (a, b) =>
    a.value === b.value &&
    a.mixed === b.mixed &&
    a.param === b.param &&
    a.label === b.label &&
    a.colour === b.colour &&
    a.beside === b.beside &&
    addressKey(a.address) === addressKey(b.address) &&
    a.others.length === b.others.length &&
    a.others.every((o, i) => addressKey(o) === addressKey(b.others[i])),
);

function PlainNumberRow({
  address,
  others,
  mixed,
  title,
  suffix,
  label,
  param,
  value,
  colour,
  beside,
}: NumberRowProps) {
  const setAll = useEditor((s) => s.setValues);
  const moving = isMoving(value);
  const key = addressKey(address);
  const linked = useEditor((s) => (moving ? (linkedValue(s.piece, address) as NumberValue) : value));
  const open = useEditor((s) => s.motionOf !== null && addressKey(s.motionOf) === key);
  const openMotion = () => useEditor.setState({ motionOf: address });
  return (
    <Row
      title={title}
      suffix={suffix}
      help={param.help}
      drawing={
        <>
          {mixed && <Mixed />}
          {(address.axis ?? 0) === 0 && <PairMark address={address} label={param.title} />}
          {param.moves && (
            <MotionPopover
              label={label}
              open={open}
              trigger={(props) => (
                <MotionButton
                  {...props}
                  label={label}
                  moving={moving}
                  onClick={open ? closeMotion : openMotion}
                  skipped
                >
                  <Drawing value={linked} colour={colour} width={beside ? BESIDE : 46} />
                </MotionButton>
              )}
            >
              {() => (
                <MotionForm
                  address={address}
                  others={others}
                  param={param}
                  value={value}
                  label={label}
                  colour={colour}
                />
              )}
            </MotionPopover>
          )}
          {beside}
        </>
      }
    >
      <ParamField
        label={label}
        param={param}
        value={moving ? 0 : value}
        live={moving ? (s) => settled(param, linked, s.frame, s.piece.loop.frames) : undefined}
        driven={moving}
        mixed={mixed}
        onDriven={param.moves ? openMotion : undefined}
        addresses={[address, ...others]}
        onWords={(text) => sayTyped(text, label, param, [address, ...others])}
        onChange={(v, gesture, joined) => setAll(label, [address, ...others, ...joined], v, `${key}/${gesture}`)}
      />
    </Row>
  );
}

function ColourRow({
  address,
  others,
  mixed,
  param,
  value,
  beside,
}: {
  address: Address;
  others: readonly Address[];
  mixed: boolean;
  param: ColourParam;
  value: ColourValue;
  beside?: React.ReactNode;
}) {
  const setAll = useEditor((s) => s.setValues);
  const moving = isMoving(value);
  const key = addressKey(address);
  const linked = useEditor((s) => linkedValue(s.piece, address) as ColourValue);
  const open = useEditor((s) => s.motionOf !== null && addressKey(s.motionOf) === key);
  const openMotion = () => useEditor.setState({ motionOf: address });
  return (
    <Row
      title={param.title}
      help={param.help}
      drawing={
        <>
          {mixed && <Mixed />}
          <PairMark address={address} label={param.title} />
          {param.moves && (
            <MotionPopover
              label={param.title}
              open={open}
              trigger={(props) => (
                <MotionButton {...props} label={param.title} moving={moving} onClick={open ? closeMotion : openMotion}>
                  <ColourDrawing value={linked} width={beside ? BESIDE : 46} />
                </MotionButton>
              )}
            >
              {() => (
                <ColourMotionForm address={address} others={others} param={param} value={value} label={param.title} />
              )}
            </MotionPopover>
          )}
          {beside}
        </>
      }
    >
      <ColourField
        label={param.title}
        value={moving ? '' : value}
        live={moving ? (s) => evaluateColour(linked, { frame: s.frame, frames: s.piece.loop.frames }) : undefined}
        driven={moving}
        onDriven={openMotion}
        onChange={(v, gesture) => setAll(param.title, [address, ...others], v, gesture && `${key}/${gesture}`)}
      />
    </Row>
  );
}

function settled(param: NumberParam | VectorParam, value: NumberValue, frame: number, frames: number): number {
  return evaluateParam({ ...param, type: 'number', default: 0 } as NumberParam, value, { frame, frames }) as number;
}
