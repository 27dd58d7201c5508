import { signal, type Signal } from '@angular/core';
import type { LayerValues, Recipe } from '@wexikine/core';
import type { SheetRow } from './rows';

/** A layer that is to come before another in the order of a run; null puts it last. */
export interface Reorder {
  readonly layer: string;
  readonly before: string | null;
}

/** Whether a row has a place in the order of the dry run. */
export function hasPlace({ plan }: Pick<SheetRow, 'plan'>, recipe: Recipe | null): boolean {
  return plan !== null && recipe !== null && recipe.operation !== 'clear';
}

/** A layer one place further up (−1) or down in the order; null where it stands at that end. */
export function reorderedBy(
  layers: readonly Pick<LayerValues, 'layer' | 'place'>[],
  layer: string,
  step: 1 | -1,
): Reorder | null {
  const inOrder = [...layers].sort((a, b) => a.place - b.place).map((entry) => entry.layer);
  const at = inOrder.indexOf(layer);
  if (at < 0 || at + step < 0 || at + step >= inOrder.length) return null;
  return { layer, before: step < 0 ? inOrder[at - 1] : (inOrder[at + 2] ?? null) };
}

/** A row that is dragged by its number onto another, to come before it in the order of the run. */
export class RowOrder {
  private readonly over = signal<string | null>(null);
  /** The layer on whose row the pointer is. */
  readonly target: Signal<string | null> = this.over;
  private carried: string | null = null;

  constructor(private readonly reordered: (reorder: Reorder) => void) {}

  grip(event: PointerEvent, layer: string): void {
    event.preventDefault();
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.carried = layer;
  }

  carry(event: PointerEvent): void {
    if (this.carried === null) return;
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-layer]');
    this.over.set(under?.dataset['layer'] ?? null);
  }

  isCarrying(): boolean {
    return this.carried !== null;
  }

  /** A row that is given up keeps its place. */
  cancel(): void {
    this.carried = null;
    this.over.set(null);
  }

  drop(): void {
    const [layer, before] = [this.carried, this.over()];
    this.cancel();
    if (layer !== null && before !== null && layer !== before) this.reordered({ layer, before });
  }
}
