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
  viewChild,
} from '@angular/core';
import {
  addRows,
  presetChannels,
  ROW_CHOICES,
  rowGroups,
  type ChannelId,
  type Moment,
  type Preset,
  type PresetEasing,
  type RowGroup,
  type Shelf,
} from '@wexikine/core';
import { completionsFor, type Completion } from './completions';
import type { EditEnd } from './formula-editor';
import { scopeFor, type Inspection } from './inspection';
import { EasingButton } from './easing-button';
import { MomentHead } from './moment-head';
import { MatrixCell } from './matrix-cell';
import {
  cellCommand,
  cellOf,
  chipOf,
  easedAfter,
  goneFrom,
  stepAfter,
  takenBackAt,
  textAt,
  withMoment,
  writtenAt,
  type Chip,
  type Place,
} from './matrix-cells';
import { MatrixFoot } from './matrix-foot';
import type { PresetChange } from './parameter-table';
import { RowHead, type RowChoice } from './row-head';

const NO_COMPLETIONS: readonly Completion[] = [];
const HEAD = '104px';
const CHIP = '40px';
const NARROW = 'minmax(84px, 1fr)';
const WIDE = 'minmax(190px, 2fr)';

/** The moments × channels of a preset: formulas in cells, easings between them. */
@Component({
  selector: 'wx-moment-matrix',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingButton, MatrixCell, MatrixFoot, MomentHead, RowHead],
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

  private readonly foot = viewChild.required(MatrixFoot);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly groups = computed(() => rowGroups(this.preset()));
  private readonly matrix = computed(() => ({ preset: this.preset(), groups: this.groups() }));
  protected readonly choices = computed(() => {
    const taken = new Set(presetChannels(this.preset()));
    return ROW_CHOICES.filter(({ channels }) => channels.every((channel) => !taken.has(channel)));
  });
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

  protected readonly cellOf = cellOf;
  protected readonly chipOf = chipOf;

  protected publishedEase(group: RowGroup, moment: Moment): PresetEasing | null {
    const row = this.published()?.rows.find(({ channel }) => channel === group.channels[0]);
    return row?.cells.find((cell) => cell.moment === moment.id)?.ease ?? null;
  }

  /** What may be written in a row; only the cell that is typed in asks for it. */
  protected completions(isEditing: boolean, row: number): readonly Completion[] {
    if (!isEditing) return NO_COMPLETIONS;
    const channel = row < 0 ? null : this.groups()[row].channels[0];
    return completionsFor(scopeFor(this.preset(), channel), this.preset());
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
    this.changed.emit(writtenAt(this.matrix(), place, text));
  }

  protected end(how: EditEnd): void {
    const place = this.editing();
    if (!place) return;
    this.editing.set(null);
    if (how === 'cancel' && this.before && this.before !== this.preset())
      this.changed.emit(takenBackAt(place, this.before));
    const step = stepAfter(how);
    if (step) this.go(place, ...step);
  }

  protected key(event: KeyboardEvent, row: number, column: number): void {
    if (this.editing() || event.target !== event.currentTarget) return;
    const command = cellCommand(event);
    if (!command) return;
    if (command.does === 'go') this.go({ row, column }, command.down, command.across);
    else if (command.does === 'edit') this.edit(row, column, command.typed);
    else this.empty(row, column);
    event.preventDefault();
    event.stopPropagation();
  }

  protected setEasing(chip: Chip, ease: PresetEasing): void {
    this.changed.emit(easedAfter(this.preset(), chip, ease));
  }

  protected addMoment(): void {
    this.changed.emit(withMoment(this.preset()));
  }

  protected addRow({ channels, label }: RowChoice): void {
    this.added = this.groups().length;
    this.changed.emit({ label: `Add ${label}`, preset: addRows(this.preset(), channels) });
    this.channelChange.emit(channels[0]);
  }

  /** The menu gives its focus to the first cell of a row that was added, else back to its button. */
  protected channelMenuClosed(): void {
    const row = this.added;
    this.added = null;
    setTimeout(() => {
      if (row === null) this.foot().focus();
      else this.focus(row < this.groups().length ? { row, column: 0 } : this.current());
    });
  }

  private empty(row: number, column: number): void {
    if (row < 0 || textAt(this.matrix(), { row, column }) === '') return;
    this.write({ row, column }, '');
  }

  private go(from: Place, down: number, across: number): void {
    this.focus(goneFrom(this.matrix(), from, down, across));
  }

  private focus(place: Place): void {
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
