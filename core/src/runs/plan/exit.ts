import type { Shelf } from '../../library/library';
import type { Order, PresetRecipe } from '../../scene/recipe';
import type { RunRecord } from '../../scene/scene';

/** How an exit is made from an entrance. */
export interface ExitWishes {
  /** A preset of the library; without one the exit that matches the entrance, or its mirror image. */
  readonly preset?: string;
  readonly order: 'same' | 'reversed';
  /** Null hangs it on each layer's out point; a time lands the last one there. */
  readonly finish: string | null;
}

function reversed(order: Order): Order {
  if (order.reversed !== true) return { ...order, reversed: true };
  const { reversed: _standing, ...rest } = order;
  return rest;
}

function presetFor({ preset }: RunRecord, wanted: string | undefined, shelf: Shelf): PresetRecipe['preset'] {
  if (wanted !== undefined) return { id: wanted };
  const id = preset?.id ?? '';
  for (const item of shelf.items.values()) {
    if (item.kind === 'preset' && item.state === 'published' && item.body.matches === id) return { id: item.id };
  }
  return { id, mirrored: true };
}

/** The recipe of the exit that goes with an entrance run; null where the run is no entrance. */
export function matchingExitRecipe(run: RunRecord, shelf: Shelf, wishes: ExitWishes): PresetRecipe | null {
  const entrance = run.recipe;
  if (entrance.operation !== 'bring-in') return null;
  const preset = presetFor(run, wishes.preset, shelf);
  const known = shelf.preset(preset.id)?.body.parameters.map(({ name }) => name);
  const parameters = Object.entries(entrance.parameters).filter(([name]) => known?.includes(name) ?? true);
  const { overrides: _own, ...rest } = entrance;
  return {
    ...rest,
    operation: 'send-out',
    preset,
    order: wishes.order === 'reversed' ? reversed(entrance.order) : entrance.order,
    start: wishes.finish === null ? { by: 'layer' } : { by: 'finish', at: wishes.finish },
    spacing: entrance.spacing.by === 'finish' ? { by: 'gap', gap: '0f' } : entrance.spacing,
    length: entrance.length.by === 'finish' ? { by: 'preset' } : entrance.length,
    moves: 'keys',
    parameters: Object.fromEntries(parameters),
  };
}
