import { signal } from '@angular/core';
import { enter } from '../../fields/entry';
import type { Rate } from '@wexikine/core';
import type { Cell, CellField } from './cells';
import type { SheetRow } from './rows';

/** What a cell is checked with. */
export interface CellContext {
  readonly rate: Rate;
  /** What is wrong with a text for a field; null where nothing is. */
  readonly check: (field: CellField) => (text: string) => string | null;
}

/** A value that was set by hand for one layer; null releases it. */
export interface HandValue {
  readonly layer: string;
  readonly field: CellField;
  readonly text: string | null;
}

/** The one cell of the sheet that is being written in: what is typed, what is wrong with it, and what it comes to. */
export class CellEditor {
  private readonly editing = signal<{ readonly layer: string; readonly field: CellField } | null>(null);
  private readonly wrong = signal<string | null>(null);
  readonly problem = this.wrong.asReadonly();

  constructor(
    private readonly context: () => CellContext,
    private readonly set: (value: HandValue) => void,
  ) {}

  isOpen(layer: string, field: CellField): boolean {
    const editing = this.editing();
    return editing?.layer === layer && editing.field === field;
  }

  open({ layer }: SheetRow, { field }: Cell): void {
    this.wrong.set(null);
    this.editing.set({ layer: layer.id, field });
    setTimeout(() => document.querySelector<HTMLInputElement>(`#row-${layer.id} input.cell`)?.select());
  }

  check(cell: Cell, event: Event): void {
    const { text, problem } = this.enteredIn(cell, (event.target as HTMLInputElement).value);
    this.wrong.set(text === '' ? null : problem);
  }

  /** What typing in a cell comes to, over what stands in it. */
  private enteredIn({ field, text: standing }: Cell, typed: string): { text: string; problem: string | null } {
    const { rate, check } = this.context();
    const entered = enter(typed, standing.replace(/\s/g, ''), rate);
    if (entered?.ok === false) return { text: typed, problem: entered.message };
    const text = (entered?.text ?? typed).trim();
    return { text, problem: check(field)(text) };
  }

  key(event: KeyboardEvent, row: SheetRow, cell: Cell): void {
    event.stopPropagation();
    if (event.key === 'Escape') this.close();
    if (event.key !== 'Enter' || this.wrong() !== null) return;
    const { text } = this.enteredIn(cell, (event.target as HTMLInputElement).value);
    this.close();
    this.set({ layer: row.layer.id, field: cell.field, text: text === '' ? null : text });
    setTimeout(() => document.getElementById(`row-${row.layer.id}`)?.focus());
  }

  close(): void {
    this.editing.set(null);
  }
}
