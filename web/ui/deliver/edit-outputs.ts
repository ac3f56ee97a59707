import { outputs } from '@maypole/core/output/index';
import type { OutputPreset } from '@maypole/core/output/presets';
import { copyItem } from '@maypole/core/piece/copy';
import { newItem, type Item, type Piece } from '@maypole/core/piece/piece';
import { wrapFrame } from '@maypole/core/time/loop';
import { useEditor } from '../state/store';

const edit = (label: string, change: (piece: Piece) => Piece) => useEditor.getState().edit(label, change);

/** A new output with values that suit the piece: transparent if its backdrop is. */
function outputFor(piece: Piece, kind: string, values: Item['values'] = {}): Item {
  const declared = outputs.get(kind);
  const clear: Item['values'] =
    piece.scene.backdrop[0]?.kind === 'clear' && 'clear' in declared.params ? { clear: true } : {};
  return newItem(declared, { ...clear, ...values });
}

export function addOutput(kind: string): void {
  edit(`Add ${outputs.get(kind).title}`, (p) => ({ ...p, outputs: [...p.outputs, outputFor(p, kind)] }));
}

/** Adds another output with the same values right behind one. */
export function duplicateOutput(id: string): void {
  edit('Duplicate output', (p) => ({
    ...p,
    outputs: p.outputs.flatMap((o) => (o.id === id ? [o, copyItem(o, outputs.get(o.kind).params)] : [o])),
  }));
}

export function removeOutput(id: string): void {
  edit('Remove output', (p) => ({ ...p, outputs: p.outputs.filter((o) => o.id !== id) }));
}

export function switchOutput(id: string, on: boolean): void {
  edit(on ? 'Output on' : 'Output off', (p) => ({
    ...p,
    outputs: p.outputs.map((o) => (o.id === id ? { ...o, on } : o)),
  }));
}

/** Changes values of an output, as the repair of a file asks. */
export function repairOutput(kind: string, title: string, values: Item['values']): void {
  edit(title, (p) => ({
    ...p,
    outputs: p.outputs.map((o) => (o.kind === kind && o.on ? { ...o, values: { ...o.values, ...values } } : o)),
  }));
}

/** The part of the loop that a still is of: the frame that is shown. */
function stillAt({ render }: OutputPreset, frame: number, { loop }: Piece): Item['values'] {
  const at = wrapFrame(Math.floor(frame), loop.frames);
  return render?.range === 'part' ? { from: at, to: at } : {};
}

/**
 * Applies a purpose: outputs, size, and how frames are made. Other outputs are switched off, not removed. All frames are
 * made at full size, whatever the purpose before it asked for; a still is of the frame that is shown.
 */
export function takePreset(preset: OutputPreset): void {
  const at = useEditor.getState().frame;
  edit(`Deliver for: ${preset.title}`, (p) => {
    const rest = p.outputs.map((o) => ({ ...o, on: false }));
    const wanted: Item[] = [];
    for (const [kind, values] of preset.outputs) {
      const there = rest.findIndex((o) => o.kind === kind);
      const own = there >= 0 ? rest.splice(there, 1)[0] : outputFor(p, kind);
      wanted.push({ ...own, on: true, values: { ...own.values, ...values } });
    }
    return {
      ...p,
      format: preset.size ?? p.format,
      render: {
        ...p.render,
        values: { ...p.render.values, range: 'all', scale: 100, ...preset.render, ...stillAt(preset, at, p) },
      },
      outputs: [...wanted, ...rest],
    };
  });
}
