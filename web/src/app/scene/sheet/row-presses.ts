import type { SheetRow } from './rows';

/** What presses on rows lead to. */
export interface RowPressesTo {
  readonly rows: () => readonly SheetRow[];
  /** The layer that leads the selection. */
  readonly lead: () => string | null;
  readonly select: (id: string) => void;
  /** One more layer, or one less. */
  readonly also: (id: string) => void;
  /** Layers together, the one that leads first. */
  readonly many: (ids: readonly string[]) => void;
  readonly ticked: (tick: { readonly layers: readonly string[]; readonly isOn: boolean }) => void;
}

/** The keys that are held while a row is pressed. */
export type HeldKeys = Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>;

/** Presses on the rows of the run sheet: which layers they select, and which they tick. */
export class RowPresses {
  private lastTicked: string | null = null;

  constructor(private readonly to: RowPressesTo) {}

  /** A press on a row selects it alone; with Ctrl besides the others, with Shift all from the one that leads to it. */
  press({ ctrlKey, metaKey, shiftKey }: HeldKeys, id: string): void {
    const lead = this.to.lead();
    if (ctrlKey || metaKey) this.to.also(id);
    else if (shiftKey && lead !== null) this.to.many([lead, ...this.between(lead, id).filter((one) => one !== lead)]);
    else this.to.select(id);
  }

  /** Ticks a row; with Shift all rows from the one that was ticked before. */
  tick({ shiftKey }: Pick<MouseEvent, 'shiftKey'>, id: string, isOn: boolean): void {
    const layers = shiftKey ? this.between(this.lastTicked ?? id, id) : [id];
    this.lastTicked = id;
    this.to.ticked({ layers, isOn });
  }

  /** Layers of the rows from one to another, both included; only the other where the one is not shown. */
  private between(one: string, other: string): readonly string[] {
    const ids = this.to.rows().map(({ layer }) => layer.id);
    const [from, to] = [ids.indexOf(one), ids.indexOf(other)].sort((a, b) => a - b);
    return from >= 0 ? ids.slice(from, to + 1) : [other];
  }
}
