import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  copyRows,
  counted,
  fileAddress,
  fileType,
  ROW_PLACES,
  usualCells,
  withInside,
  type CellPicture,
  type KeptFile,
  type Layer,
  type RowPlace,
  type RowsMade,
  type Scene,
  type Table,
} from '@wexikine/core';
import { KeptFiles } from '../../files/kept-files';
import type { DataAnswer } from './data-dialog';

const PLACES: Readonly<Record<RowPlace, string>> = {
  same: 'in the same place',
  below: 'one below the other',
  beside: 'side by side',
};
const USUAL_GAP = 24;
const MOST_NAMED = 6;

const newId = (): string => `layer-${crypto.randomUUID().slice(0, 18)}`;

function few(names: readonly string[]): string {
  const shown = names.slice(0, MOST_NAMED).map((name) => (name === '' ? '(empty)' : name));
  return names.length > MOST_NAMED ? `${shown.join(', ')} and ${names.length - MOST_NAMED} more` : shown.join(', ');
}

function withoutEnding(name: string): string {
  return name.replace(/\.[a-z0-9]{2,5}$/i, '').toLocaleLowerCase('en');
}

/** The picture that a cell names: the file's name, with or without its ending. */
function pictureNamed(files: readonly KeptFile[], cell: string): CellPicture | null {
  const wanted = withoutEnding(cell.trim());
  const file = files.find(({ name, title }) => fileType(name).kind === 'picture' && withoutEnding(title) === wanted);
  if (!file) return null;
  const { width, height } = file.facts;
  return { href: fileAddress(file.name), ...(width && height ? { width, height } : {}) };
}

/** What is done with rows once they are taken. */
export function rowsAnswer({ edits, groups, added, updated, removed }: RowsMade): DataAnswer {
  const told = [
    added > 0 ? `${added} made` : '',
    updated > 0 ? `${updated} up to date` : '',
    removed > 0 ? `${removed} taken away` : '',
  ];
  return {
    label: `Bring in ${counted(groups.length, 'row')}`,
    edits,
    selected: groups,
    told: `Copies: ${told.filter((part) => part !== '').join(', ')}.`,
  };
}

/** Rows of a table as copies of a group: which words and pictures show which column, and where the copies rest. */
@Component({
  selector: 'wx-row-copies',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="two">
      <label class="field-label"
        >Group
        <select class="text-field" (change)="group.set(value($event))">
          @for (one of groups(); track one.id) {
            <option [value]="one.id" [selected]="one.id === group()">{{ one.name }}</option>
          }
        </select>
      </label>
      <label class="field-label"
        >Rows are known by
        <select class="text-field" (change)="column.set(value($event))">
          @for (name of table().columns; track name) {
            <option [selected]="name === column()">{{ name }}</option>
          }
        </select>
      </label>
      <label class="field-label"
        >Copies rest
        <select class="text-field" (change)="place.set($any(value($event)))">
          @for (one of places; track one) {
            <option [value]="one" [selected]="one === place()">{{ placeNames[one] }}</option>
          }
        </select>
      </label>
      @if (place() !== 'same') {
        <label class="field-label"
          >Gap, px <input class="text-field mono" inputmode="decimal" [value]="gap()" (change)="setGap($event)"
        /></label>
      }
    </div>
    @if (parts().length === 0) {
      <p class="problem" role="alert">There are no words or pictures in this group that could show a column.</p>
    }
    <ul class="cells" aria-label="What shows which column">
      @for (part of parts(); track part.id) {
        <li>
          <span
            >{{ part.name }} <small>{{ part.source.type === 'text' ? 'words' : 'picture' }}</small></span
          >
          <select
            class="text-field"
            [attr.aria-label]="'Column that ' + part.name + ' shows'"
            (change)="setCell(part.id, value($event))"
          >
            <option value="" [selected]="!cells().has(part.id)">stays as it is</option>
            @for (name of table().columns; track name) {
              <option [value]="name" [selected]="cells().get(part.id) === name">{{ name }}</option>
            }
          </select>
        </li>
      }
    </ul>
    @if (hasCopies()) {
      <label class="choice"
        ><input type="checkbox" [checked]="isThinned()" (change)="isThinned.set(!isThinned())" /><span
          >Take away copies whose row is gone</span
        ></label
      >
    }
    <div role="status">
      <ul class="report">
        @for (line of report(); track line) {
          <li>{{ line }}</li>
        }
      </ul>
    </div>
  `,
  styleUrl: './data-dialog.scss',
})
export class RowCopies {
  readonly scene = input.required<Scene>();
  readonly picked = input.required<ReadonlySet<string>>();
  readonly groups = input.required<readonly Layer[]>();
  readonly table = input.required<Table>();

  private readonly files = inject(KeptFiles);
  private readonly kept = toSignal(this.files.files$, { requireSync: true });

  protected readonly places = ROW_PLACES;
  protected readonly placeNames = PLACES;
  /** The group that is picked, or that something picked is a copy of or lies in; else the first one. */
  protected readonly group = linkedSignal(() => {
    const picked = this.picked();
    const isNear = ({ id }: Layer): boolean =>
      picked.has(id) ||
      this.scene().layers.some(({ id: own, parent, copy }) => picked.has(own) && (parent === id || copy?.of === id));
    const hasWords = ({ id }: Layer): boolean => usualCells(this.scene(), id, this.table()).size > 0;
    return (this.groups().find(isNear) ?? this.groups().find(hasWords) ?? this.groups()[0]).id;
  });
  protected readonly column = linkedSignal(() => this.table().columns[0]);
  protected readonly place = signal<RowPlace>('below');
  protected readonly gap = signal(USUAL_GAP);
  protected readonly isThinned = signal(false);
  protected readonly cells = linkedSignal(() => usualCells(this.scene(), this.group(), this.table()));
  protected readonly parts = computed(() =>
    withInside(this.scene(), new Set([this.group()])).filter(
      ({ source }) => source.type === 'text' || source.type === 'picture',
    ),
  );
  protected readonly hasCopies = computed(() => this.scene().layers.some(({ copy }) => copy?.of === this.group()));

  readonly made = computed((): RowsMade =>
    copyRows(
      this.scene(),
      {
        table: this.table(),
        group: this.group(),
        column: this.column(),
        cells: this.cells(),
        place: this.place(),
        gap: this.gap(),
        isThinned: this.isThinned(),
        pictureOf: (cell) => pictureNamed(this.kept(), cell),
      },
      newId,
    ),
  );

  protected readonly report = computed(() => {
    const { problem, added, updated, removed, left, missing, edits } = this.made();
    if (problem !== null) return [problem];
    return [
      `${counted(added, 'new copy', 'new copies')}, ${updated} brought up to date${removed > 0 ? `, ${removed} taken away` : ''}.`,
      ...(edits.length === 0 ? ['Everything is as the table says already.'] : []),
      ...(left.length > 0 ? [`No row any more for: ${few(left)}. They stay.`] : []),
      ...(missing.length > 0 ? [`No picture is kept under: ${few(missing)}. Drop it on a scene first.`] : []),
    ];
  });

  constructor() {
    void this.files.load().catch(() => undefined);
  }

  protected value(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected setGap(event: Event): void {
    const gap = Number(this.value(event).replace(',', '.'));
    if (Number.isFinite(gap)) this.gap.set(Math.min(1e5, Math.max(-1e5, gap)));
    else (event.target as HTMLInputElement).value = `${this.gap()}`;
  }

  protected setCell(part: string, column: string): void {
    const cells = new Map(this.cells());
    if (column === '') cells.delete(part);
    else cells.set(part, column);
    this.cells.set(cells);
  }
}
