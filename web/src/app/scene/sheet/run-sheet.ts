import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { nearestFrame, frameTicks, type LayerPlan, type Parameter, type Plan, type Scene } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { rulerMarks } from './ruler';
import { rowTimes, sheetRows, swatch, valueText, variedColumns, type SheetRow } from './rows';
import { STRIP_HEIGHT, StripView } from './strip-view';

const STRIP_PADDING = 14;

/** The table of a scene's layers with what the run gives to each, and their keys in time. */
@Component({
  selector: 'wx-run-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ScrollingModule, StripView],
  templateUrl: './run-sheet.html',
  styleUrl: './run-sheet.scss',
  host: { '[style.--columns]': 'columnTemplate()' },
})
export class RunSheet implements AfterViewInit {
  readonly scene = input.required<Scene>();
  readonly plan = input.required<Plan | null>();
  readonly parameters = input.required<readonly Parameter[]>();
  readonly time = input.required<number>();
  readonly selected = input.required<string | null>();
  /** Ids of the layers that the pick catches. */
  readonly picked = input.required<ReadonlySet<string>>();
  readonly selectedChange = output<string>();
  readonly tick = output<string>();
  readonly seek = output<number>();
  readonly addLayers = output();
  readonly removed = output<string>();

  protected readonly rowHeight = STRIP_HEIGHT;
  protected readonly expanded = signal<ReadonlySet<string>>(new Set());
  protected readonly query = signal('');
  protected readonly stripWidth = signal(0);
  private readonly head = viewChild.required<ElementRef<HTMLElement>>('head');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly destroy = inject(DestroyRef);
  private isSeeking = false;

  protected readonly rows = computed(() => sheetRows(this.scene(), this.plan(), this.expanded(), this.query()));
  protected readonly columns = computed(() => variedColumns(this.plan(), this.parameters()));
  protected readonly runId = computed(() => this.plan()?.run?.id ?? null);
  protected readonly marks = computed(() => rulerMarks(this.scene().length, this.stripWidth(), this.scene().rate));
  protected readonly playheadX = computed(() => Math.round((this.time() / this.scene().length) * this.stripWidth()));
  protected readonly columnTemplate = computed(
    () =>
      `58px minmax(120px, 168px) 56px 52px ${this.columns()
        .map(() => '54px')
        .join(' ')} minmax(0, 1fr)`,
  );

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([entry]) =>
      this.stripWidth.set(Math.max(0, entry.contentRect.width - STRIP_PADDING)),
    );
    observer.observe(this.head().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  protected times(row: SheetRow): ReturnType<typeof rowTimes> {
    return rowTimes(row, this.scene().rate);
  }

  protected swatch({ layer }: SheetRow): string {
    return swatch(layer);
  }

  protected value(plan: LayerPlan | null, { name, kind }: Parameter): string {
    return plan ? valueText(kind, plan.values[name], this.scene().rate) : '';
  }

  protected trackRow(_index: number, { layer }: SheetRow): string {
    return layer.id;
  }

  protected search(event: Event): void {
    this.query.set((event.target as HTMLInputElement).value);
  }

  protected toggle(id: string): void {
    this.expanded.update((expanded) => {
      const next = new Set(expanded);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  /** Arrows move between rows and open groups, Space ticks, Delete removes: as in any tree table. */
  protected key(event: KeyboardEvent, row: SheetRow): void {
    const { id } = row.layer;
    switch (event.key) {
      case 'ArrowDown':
        this.focusRow(id, 1);
        break;
      case 'ArrowUp':
        this.focusRow(id, -1);
        break;
      case 'ArrowRight':
        if (row.isGroup && !row.isExpanded) this.toggle(id);
        break;
      case 'ArrowLeft':
        if (row.isExpanded) this.toggle(id);
        break;
      case ' ':
        this.tick.emit(id);
        break;
      case 'Delete':
        this.removed.emit(id);
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  protected press(event: PointerEvent): void {
    this.isSeeking = true;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    this.drag(event);
  }

  protected drag(event: PointerEvent): void {
    if (!this.isSeeking) return;
    const { left } = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const time = ((event.clientX - left) / this.stripWidth()) * this.scene().length;
    const { rate } = this.scene();
    this.seek.emit(nearestFrame(time, rate) * frameTicks(rate));
  }

  protected release(): void {
    this.isSeeking = false;
  }

  private focusRow(id: string, step: number): void {
    const rows = this.rows();
    const index = rows.findIndex(({ layer }) => layer.id === id) + step;
    const row = rows[index];
    if (!row) return;
    this.selectedChange.emit(row.layer.id);
    this.viewport()?.scrollToIndex(Math.max(0, index - 5));
    setTimeout(() => document.getElementById(`row-${row.layer.id}`)?.focus());
  }
}
