import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addMoment,
  addRows,
  changeMoment,
  presetChannels,
  ROW_CHOICES,
  rowGroups,
  setCell,
  setEase,
  type Cell,
  type ChannelId,
  type Moment,
  type Preset,
  type PresetEasing,
  type RowGroup,
  type Shelf,
} from '@wexikine/core';
import { inFamilies } from '../fields/in-families';
import { Icon } from '../icons/icon';
import { completionsFor, type Completion } from './completions';
import { FormulaEditor, type EditEnd } from './formula-editor';
import { FormulaText } from './formula-text';
import { scopeFor, type Inspection } from './inspection';
import { EasingButton } from './easing-button';
import { MomentHead } from './moment-head';
import type { PresetChange } from './parameter-table';
import { RowHead } from './row-head';

/** Where in the matrix something stands: row −1 is the moments' times. */
interface Place {
  readonly row: number;
  readonly column: number;
}

interface Chip {
  readonly group: RowGroup;
  readonly cell: Cell;
  /** The cell that it leads to. */
  readonly next: Cell;
}

const HEAD = '104px';
const CHIP = '40px';
const NARROW = 'minmax(84px, 1fr)';
const WIDE = 'minmax(190px, 2fr)';

/** The moments × channels of a preset: formulas in cells, easings between them. */
@Component({
  selector: 'wx-moment-matrix',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormulaEditor, FormulaText, Icon, MatMenuModule, EasingButton, MomentHead, RowHead],
  templateUrl: './moment-matrix.html',
  styleUrl: './moment-matrix.scss',
})
export class MomentMatrix {
  readonly preset = input.required<Preset>();
  /** What is published, to draw its easings behind. */
  readonly published = input<Preset | null>(null);
  readonly shelf = input.required<Shelf>();
  readonly inspection = input.required<Inspection>();
  /** The channel whose curve is shown. */
  readonly channel = input.required<ChannelId | null>();
  readonly changed = output<PresetChange>();
  readonly channelChange = output<ChannelId>();
  readonly record = output();

  private readonly detector = inject(ChangeDetectorRef);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly groups = computed(() => rowGroups(this.preset()));
  protected readonly choices = computed(() => {
    const taken = new Set(presetChannels(this.preset()));
    return ROW_CHOICES.filter(({ channels }) => channels.every((channel) => !taken.has(channel)));
  });
  protected readonly families = computed(() => inFamilies(this.choices(), ({ channels }) => channels[0]));
  /** The column that is typed in, and those in which something is wrong, have more room. */
  protected readonly columns = computed(() => {
    const editing = this.editing();
    const wrong = new Set(this.inspection().problems.map(({ place }) => ('moment' in place ? place.moment : null)));
    const widths = this.preset().moments.map(({ id }, column) =>
      editing?.column === column || wrong.has(id) ? WIDE : NARROW,
    );
    return `${HEAD} ${widths.join(` ${CHIP} `)}`;
  });
  protected readonly current = signal<Place>({ row: 0, column: 0 });
  protected readonly editing = signal<Place | null>(null);
  private before: Preset | null = null;
  private added: number | null = null;
  /** Text with which editing began by typing over what stood. */
  protected readonly typed = signal<string | null>(null);

  protected isAt(place: Place | null, row: number, column: number): boolean {
    return place?.row === row && place.column === column;
  }

  protected cellOf(group: RowGroup, moment: Moment): Cell | null {
    return group.row.cells.find((cell) => cell.moment === moment.id) ?? null;
  }

  /** The easing that leaves a moment's cell; null where the row ends with it. */
  protected chipOf(group: RowGroup, moment: Moment): Chip | null {
    const index = group.row.cells.findIndex((cell) => cell.moment === moment.id);
    const [cell, next] = [group.row.cells[index], group.row.cells[index + 1]];
    return index >= 0 && next ? { group, cell, next } : null;
  }

  protected publishedEase(group: RowGroup, moment: Moment): PresetEasing | null {
    const row = this.published()?.rows.find(({ channel }) => channel === group.channels[0]);
    return row?.cells.find((cell) => cell.moment === moment.id)?.ease ?? null;
  }

  protected textAt({ row, column }: Place): string {
    const moment = this.preset().moments[column];
    if (row < 0) return moment.at;
    return this.cellOf(this.groups()[row], moment)?.value ?? '';
  }

  protected completions(row: number): readonly Completion[] {
    const channel = row < 0 ? null : this.groups()[row].channels[0];
    return completionsFor(scopeFor(this.preset(), channel), this.preset());
  }

  protected labelAt({ row, column }: Place): string {
    const moment = this.preset().moments[column];
    return row < 0 ? `Time of ${moment.name}` : `${this.groups()[row].label} at ${moment.name}`;
  }

  protected edit(row: number, column: number, typed: string | null = null): void {
    this.before = this.preset();
    this.typed.set(typed);
    this.current.set({ row, column });
    this.editing.set({ row, column });
    // At once, so that what is typed next finds the editor.
    this.detector.detectChanges();
    if (row >= 0) this.channelChange.emit(this.groups()[row].channels[0]);
    if (typed !== null) this.write({ row, column }, typed);
  }

  protected write(place: Place, text: string): void {
    const moment = this.preset().moments[place.column];
    const merge = `cell ${place.row} ${place.column}`;
    if (place.row < 0) {
      const preset = changeMoment(this.preset(), moment.id, { at: text });
      this.changed.emit({ label: `Time of ${moment.name}`, preset, merge });
      return;
    }
    const group = this.groups()[place.row];
    const preset = setCell(this.preset(), group.channels, moment.id, text);
    this.changed.emit({ label: `${capital(group.label)} at ${moment.name}`, preset, merge });
  }

  protected end(how: EditEnd): void {
    const place = this.editing();
    if (!place) return;
    this.editing.set(null);
    if (how === 'cancel' && this.before && this.before !== this.preset()) {
      this.changed.emit({
        label: 'Take back what was typed',
        preset: this.before,
        merge: `cell ${place.row} ${place.column}`,
      });
    }
    if (how === 'stay') return;
    const steps = { down: [1, 0], next: [0, 1], previous: [0, -1], cancel: [0, 0] } as const;
    const [down, across] = steps[how];
    this.focus(place.row + down, place.column + across, place);
  }

  /** Arrows go from cell to cell, Enter and typing edit, Delete empties: as in any sheet. */
  protected key(event: KeyboardEvent, row: number, column: number): void {
    if (this.editing() || event.target !== event.currentTarget) return;
    const arrows: Readonly<Record<string, readonly [number, number]>> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    if (event.key in arrows) {
      const [down, across] = arrows[event.key];
      this.focus(row + down, column + across, { row, column });
    } else if (event.key === 'Enter' || event.key === 'F2') this.edit(row, column);
    else if (event.key === 'Delete' || event.key === 'Backspace') this.empty(row, column);
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey)
      this.edit(row, column, event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected setEasing({ group, cell }: Chip, ease: PresetEasing): void {
    const preset = setEase(this.preset(), group.channels, cell.moment, ease);
    this.changed.emit({ label: `Easing of ${group.label}`, preset, merge: `ease ${group.channels[0]} ${cell.moment}` });
  }

  protected addMoment(): void {
    const { moments } = this.preset();
    const last = moments[moments.length - 1];
    const before = moments[moments.length - 2];
    // Between the last two, since the last one mostly is where the layer comes to rest.
    const at = before && this.preset().lasts !== undefined ? `@${this.preset().lasts} × 50%` : '10f';
    const name = `Moment ${moments.length}`;
    const preset = addMoment(this.preset(), before?.id ?? last.id, name, at);
    this.changed.emit({ label: `Add the moment ${name}`, preset });
  }

  protected addRow(channels: readonly ChannelId[], label: string): void {
    this.added = this.groups().length;
    this.changed.emit({ label: `Add ${label}`, preset: addRows(this.preset(), channels) });
    this.channelChange.emit(channels[0]);
  }

  /** The menu gives its focus to the first cell of a row that was added, else back to its button. */
  protected channelMenuClosed(): void {
    const row = this.added;
    this.added = null;
    setTimeout(() => {
      if (row === null) this.element.querySelector<HTMLElement>('.foot button')?.focus();
      else this.focus(row, 0, this.current());
    });
  }

  private empty(row: number, column: number): void {
    if (row < 0 || this.textAt({ row, column }) === '') return;
    this.write({ row, column }, '');
  }

  private focus(row: number, column: number, from: Place): void {
    const isThere = row >= -1 && row < this.groups().length && column >= 0 && column < this.preset().moments.length;
    const place = isThere ? { row, column } : from;
    this.current.set(place);
    if (place.row >= 0 && place.row < this.groups().length)
      this.channelChange.emit(this.groups()[place.row].channels[0]);
    // After the event that led here, and before the next one.
    queueMicrotask(() => {
      this.detector.detectChanges();
      this.element.querySelector<HTMLElement>(`[data-cell="${place.row}/${place.column}"]`)?.focus();
    });
  }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
