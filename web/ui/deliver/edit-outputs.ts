import { outputs } from '@maypole/core/output/index';
import type { OutputPreset } from '@maypole/core/output/presets';
import { newItem, type Item, type Piece } from '@maypole/core/piece/piece';
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

/** Applies a purpose: outputs, size, and how frames are made. Other outputs are switched off, not removed. */
export function takePreset(preset: OutputPreset): void {
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
      render: { ...p.render, values: { ...p.render.values, ...preset.render } },
      outputs: [...wanted, ...rest],
    };
  });
}
