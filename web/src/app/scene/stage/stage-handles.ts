import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  model,
  output,
  signal,
} from '@angular/core';
import {
  apply,
  DRAG_SETS,
  movedLayers,
  lookHandles,
  moveLayers,
  stageMoment,
  type DragSets,
  type Edit,
  type Point,
  type Scene,
  type StageMoment,
  type Ticks,
} from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import { Icon } from '../../icons/icon';
import { diamondMark, gapMark, knobMark, lineMark, sideMarks, toPage, toScene, type StagePlace } from './handle-marks';
import {
  CORNERS,
  dragStage,
  isWithin,
  pivotOf,
  selectionCorners,
  type DragWays,
  type Held,
  type StageDragged,
  type StageGrip,
} from './stage-drag';

/** A change of layers by hand. Steps with the same `merge` that follow each other are one to undo. */
export interface StageStep {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly merge?: string;
}

const SETS_WORDS: Readonly<Record<DragSets, { readonly label: string; readonly title: string }>> = {
  rest: { label: 'the rest pose', title: 'Where the layer rests; its keys stay as they are' },
  along: { label: 'all keys along', title: 'The rest pose and every key together: the motion moves as a whole' },
  key: { label: 'a key here', title: 'Keys at the playhead, from what stands there' },
};

/** Page pixels within which a dragged side takes a line. */
const REACH = 6;
/** Page pixels around the anchor in which it can be taken. */
const ANCHOR_REACH = 10;
/** A press that moves less is a click. */
const CLICK_SLACK = 3;
const COARSE = 10;
const FINE = 0.1;

interface Drag {
  readonly grip: StageGrip;
  readonly from: Point;
  readonly moment: StageMoment;
  readonly isMoved: boolean;
}

/** The selected layers' outline with handles: moved, turned and scaled by hand, with lines that they snap to. */
@Component({
  selector: 'wx-stage-handles',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stage-handles.html',
  styleUrl: './stage-handles.scss',
  imports: [Icon],
  host: { '(pointermove)': 'move($event)', '(pointerup)': 'release($event)', '(pointercancel)': 'cancel()' },
})
export class StageHandles {
  /** As it stands. */
  readonly scene = input.required<Scene>();
  readonly selection = input.required<ReadonlySet<string>>();
  readonly time = input.required<Ticks>();
  readonly place = input.required<StagePlace>();
  readonly canEdit = input.required<boolean>();
  readonly sets = model.required<DragSets>();
  /** Px from one line of the grid to the next; null without one. */
  readonly grid = input<number | null>(null);
  /** What corners change. */
  protected readonly cornersChange = signal<DragWays['corners']>('scale');
  /** Whether what the look has is taken hold of here, too. */
  protected readonly showsLook = signal(false);
  readonly tried = output<Scene | null>();
  readonly step = output<StageStep>();
  readonly menuWanted = output<MouseEvent>();

  /** With Alt the anchor is taken hold of, where the pointer is near it. */
  private isAtAnchor({ x, y }: Point): boolean {
    const anchor = this.anchor();
    return anchor !== null && Math.hypot(anchor.x - x, anchor.y - y) <= ANCHOR_REACH;
  }

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly allSets = DRAG_SETS;
  protected readonly setsWords = SETS_WORDS;
  protected readonly corners = CORNERS;
  protected readonly diamond = diamondMark;
  private readonly drag = signal<Drag | null>(null);
  private readonly trial = signal<{ readonly scene: Scene; readonly dragged: StageDragged } | null>(null);
  readonly isDragging = computed(() => this.drag() !== null);

  private readonly moment = computed(() =>
    this.selection().size === 0
      ? null
      : stageMoment(this.trial()?.scene ?? this.scene(), this.sets(), Math.round(this.time())),
  );
  private readonly inScene = computed(() => {
    const moment = this.moment();
    return moment ? selectionCorners(moment, this.selection()) : [];
  });
  /** Corners on the page, from the top left one round. */
  protected readonly onPage = computed(() => this.inScene().map((point) => this.toPage(point)));
  protected readonly outline = computed(() =>
    this.onPage()
      .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
      .join(' '),
  );
  protected readonly anchor = computed(() => {
    const moment = this.moment();
    return moment && this.inScene().length > 0 ? this.toPage(pivotOf(moment, this.selection())) : null;
  });
  /** One layer alone is turned about an anchor of its own, which can be moved. */
  protected readonly hasOwnAnchor = computed(() => {
    const moment = this.moment();
    return moment !== null && movedLayers(moment, this.selection()).length === 1;
  });
  /** Middles of the sides of one layer alone, where they are long enough to be taken hold of beside the corners. */
  protected readonly sides = computed(() => (this.hasOwnAnchor() ? sideMarks(this.onPage()) : []));
  /** Handles of the look of one layer alone, on the page. */
  protected readonly lookGrips = computed(() => {
    const moment = this.moment();
    if (!moment || !this.showsLook() || !this.hasOwnAnchor()) return [];
    const [index] = movedLayers(moment, this.selection());
    return lookHandles(moment, index).map((handle) => {
      const [at, from] = [this.toPage(handle.at), this.toPage(handle.from)];
      return { handle, at, arm: `M${from.x} ${from.y}L${at.x} ${at.y}` };
    });
  });
  protected readonly knob = computed(() => knobMark(this.onPage()));
  protected readonly lines = computed(() =>
    (this.trial()?.dragged.lines ?? []).map((line) => lineMark(this.place(), line)),
  );
  protected readonly gaps = computed(() => (this.trial()?.dragged.gaps ?? []).map((gap) => gapMark(this.place(), gap)));
  protected readonly words = computed(() => this.trial()?.dragged.words ?? null);
  protected readonly pointer = signal<Point>({ x: 0, y: 0 });

  constructor() {
    giveUpOnEscape(this.isDragging, () => this.cancel());
  }

  /** True for a place on the stage (px) within what is selected, where a press takes hold of it. */
  holds(place: Point): boolean {
    return this.canEdit() && (isWithin(place, this.onPage()) || (this.hasOwnAnchor() && this.isAtAnchor(place)));
  }

  /** Takes hold of what is selected, to move it. */
  start(event: PointerEvent, grip: StageGrip = { does: 'move' }): void {
    const moment = this.moment();
    if (!moment || !this.canEdit() || event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    this.element.setPointerCapture(event.pointerId);
    const isAnchor = grip.does === 'move' && event.altKey && this.hasOwnAnchor() && this.isAtAnchor(this.pageAt(event));
    this.drag.set({ grip: isAnchor ? { does: 'anchor' } : grip, from: this.sceneAt(event), moment, isMoved: false });
  }

  protected move(event: PointerEvent): void {
    const drag = this.drag();
    if (!drag) return;
    const to = this.sceneAt(event);
    const far = Math.hypot(to.x - drag.from.x, to.y - drag.from.y) * this.place().zoom;
    if (!drag.isMoved && far < CLICK_SLACK) return;
    if (!drag.isMoved) this.drag.set({ ...drag, isMoved: true });
    this.pointer.set(this.pageAt(event));
    this.try(drag, to, event);
  }

  private try({ moment, grip, from }: Drag, to: Point, held: Held): void {
    const dragged = dragStage(moment, this.selection(), grip, from, to, held, REACH / this.place().zoom, {
      corners: this.cornersChange(),
      grid: this.grid(),
    });
    const result = apply(moment.scene, dragged.edits);
    this.trial.set(result.ok ? { scene: result.scene, dragged } : null);
    this.tried.emit(result.ok ? result.scene : null);
  }

  protected release(event: PointerEvent): void {
    const [drag, trial] = [this.drag(), this.trial()];
    this.cancel();
    if (drag && !drag.isMoved && drag.grip.does === 'move') this.clicked.emit(event);
    if (trial && trial.dragged.edits.length > 0) this.step.emit(trial.dragged);
  }

  /** A press on what is selected that moved nothing. */
  readonly clicked = output<PointerEvent>();

  protected cancel(): void {
    this.drag.set(null);
    this.trial.set(null);
    this.tried.emit(null);
  }

  /** Arrow keys move by a pixel, with Shift by ten, with Ctrl by a tenth. True where the key meant that. */
  nudge(event: KeyboardEvent): boolean {
    const way = WAYS[event.key];
    const moment = this.moment();
    if (!way || !moment || event.altKey || !this.canEdit()) return false;
    const by = event.shiftKey ? COARSE : event.ctrlKey || event.metaKey ? FINE : 1;
    const edits = moveLayers(moment, this.selection(), { x: way.x * by, y: way.y * by });
    event.preventDefault();
    if (edits.length > 0) this.step.emit({ label: 'Nudge', edits, merge: `nudge ${[...this.selection()].join()}` });
    return true;
  }

  private toPage(point: Point): Point {
    return toPage(this.place(), point);
  }

  private pageAt({ clientX, clientY }: MouseEvent): Point {
    const { left, top } = this.element.getBoundingClientRect();
    return { x: clientX - left, y: clientY - top };
  }

  private sceneAt(event: MouseEvent): Point {
    return toScene(this.place(), this.pageAt(event));
  }
}

const WAYS: Readonly<Record<string, Point | undefined>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};
