import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { isSeen, matchTable, nameColumn, readTable, type Edit, type Matched, type Scene } from '@wexikine/core';
import { RowCopies, rowsAnswer } from './row-copies';

/** The layers whose data columns are looked at. */
export interface DataSource {
  readonly scene: Scene;
  /** Ids of the layers that are picked. */
  readonly picked: ReadonlySet<string>;
}

/** What a table changes in the scene. */
export interface DataAnswer {
  readonly label: string;
  readonly edits: readonly Edit[];
  /** Layers that are to be selected; null leaves the selection. */
  readonly selected: readonly string[] | null;
  readonly told: string | null;
}

const MOST_SHOWN = 8;
const MOST_NAMED = 6;

function few(names: readonly string[]): string {
  const shown = names.slice(0, MOST_NAMED).map((name) => (name === '' ? '(empty)' : name));
  return names.length > MOST_NAMED ? `${shown.join(', ')} and ${names.length - MOST_NAMED} more` : shown.join(', ');
}

/** Takes columns of data from a spreadsheet or a CSV file onto layers, and says first what matches. */
@Component({
  selector: 'wx-data-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, RowCopies],
  templateUrl: './data-dialog.html',
  styleUrl: './data-dialog.scss',
})
export class DataDialog {
  protected readonly data = inject<DataSource>(MAT_DIALOG_DATA);
  private readonly ref = inject<MatDialogRef<DataDialog, DataAnswer>>(MatDialogRef);

  protected readonly text = signal('');
  /** Empty matches by order. */
  private readonly chosen = signal<string | null>(null);
  protected readonly onlyPicked = signal(false);

  /** Rows become copies of a group, or data of the layers that are there. */
  protected readonly isCopying = signal(false);
  protected readonly groups = this.data.scene.layers.filter(
    ({ id, kind, copy }) => kind === 'group' && (copy === undefined || copy.of === id),
  );
  private readonly copies = viewChild(RowCopies);

  protected readonly made = computed(() => this.copies()?.made() ?? null);
  protected readonly main = computed(() => {
    const [made, matched] = [this.made(), this.matched()];
    if (this.isCopying()) return made ? `Make ${made.added}, update ${made.updated}` : 'Make copies';
    return matched ? `Give data to ${matched.layers}` : 'Give data';
  });
  protected readonly isReady = computed(() =>
    this.isCopying() ? (this.made()?.edits.length ?? 0) > 0 : (this.matched()?.layers ?? 0) > 0,
  );

  protected readonly read = computed(() => readTable(this.text()));
  protected readonly table = computed(() => {
    const read = this.read();
    return read.ok ? read.table : null;
  });
  protected readonly problem = computed(() => {
    const read = this.read();
    return read.ok || this.text().trim() === '' ? null : read.message;
  });
  protected readonly column = computed(() => {
    const table = this.table();
    return this.chosen() ?? (table ? nameColumn(table, this.data.scene) : null) ?? '';
  });
  protected readonly shown = computed(() => this.table()?.rows.slice(0, MOST_SHOWN) ?? []);

  protected readonly matched = computed((): Matched | null => {
    const table = this.table();
    if (!table) return null;
    const { scene, picked } = this.data;
    const layers = scene.layers.filter((layer) => isSeen(layer) && (!this.onlyPicked() || picked.has(layer.id)));
    const column = this.column();
    return matchTable(
      table,
      scene,
      layers.map(({ id }) => id),
      column === '' ? { by: 'order' } : { by: 'name', column },
    );
  });

  protected readonly report = computed(() => {
    const matched = this.matched();
    const table = this.table();
    if (!matched || !table) return [];
    const { layers, rowsLeft, layersLeft, shared } = matched;
    return [
      `${layers === 1 ? '1 layer takes' : `${layers} layers take`} data from ${table.rows.length} rows.`,
      ...(rowsLeft.length > 0 ? [`No layer for: ${few(rowsLeft)}.`] : []),
      ...(layersLeft.length > 0 ? [`No row for: ${few(layersLeft)}.`] : []),
      ...(shared.length > 0 ? [`Several layers are called: ${few(shared)}. All of them take the row.`] : []),
    ];
  });

  protected type(event: Event): void {
    this.text.set((event.target as HTMLTextAreaElement).value);
  }

  protected choose(event: Event): void {
    this.chosen.set((event.target as HTMLSelectElement).value);
  }

  protected flip(): void {
    this.onlyPicked.update((only) => !only);
  }

  protected async open(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file) this.text.set(await file.text());
  }

  protected take(): void {
    if (!this.isReady()) return;
    const [made, matched] = [this.made(), this.matched()];
    if (this.isCopying()) return made ? this.ref.close(rowsAnswer(made)) : undefined;
    if (matched)
      this.ref.close({
        label: `Give data to ${matched.layers} layers`,
        edits: matched.edits,
        selected: null,
        told: null,
      });
  }
}
