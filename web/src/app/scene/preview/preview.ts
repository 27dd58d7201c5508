import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  type AfterViewInit,
  type ElementRef,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  model,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  boundsAt,
  compiledOnce,
  createFrame,
  frameTicks,
  sampleFrame,
  type DragSets,
  type Layer,
  type NodePath,
  type Point,
  type Scene,
  type Sight,
  SIGHTS,
  sightMatrix,
  unionOf,
} from '@wexikine/core';
import { paintBackground } from '@wexikine/paint';
import { prepareCanvas } from '../../drawing/canvas';
import { PainterService } from '../../drawing/painter.service';
import { giveUpOnEscape } from '../../give-up';
import { ColourPicker } from '../stage/colour-picker';
import { CutOutView } from '../../looks/cut-out-view';
import { Pen } from '../stage/pen';
import { StageGhosts } from '../stage/stage-ghosts';
import { StageHandles, type StageStep } from '../stage/stage-handles';
import { StageMenu } from '../stage/stage-menu';
import { StageActions } from '../stage/stage-actions';
import { StageText, wordsOf } from '../stage/stage-text';
import { MotionPaths } from '../stage/motion-paths';
import { isInSelection, layersAt, layersTouching, outermost, topmostAt, type Touches } from './hits';
import { createPathTester, isOnLayer } from './shape-hits';
import { StageCamera } from './stage-camera';
import { StagePointer } from './stage-pointer';
import {
  clipTo,
  dimOutside,
  drawBand,
  drawGrid,
  drawGuides,
  drawGround,
  drawPoint,
  drawSafeAreas,
  type Band,
  type SharePoint,
} from './marks';

/** What the preview shows besides the scene. */
export interface PreviewOptions {
  readonly safeAreas: boolean;
  readonly checks: boolean;
  readonly outside: boolean;
  /** The ways along which the selected layers go. */
  readonly paths: boolean;
  /** Eyes with which it is seen; null for most people's. */
  readonly sight: Sight | null;
  /** Px from one line of the grid to the next; null without one. */
  readonly grid: number | null;
  /** Frames from one ghost of what is selected to the next; null without them. */
  readonly ghosts: number | null;
}

/**
 * The scene at one time, with what lies outside the frame dimmed. Wheel zooms, dragging moves, a click selects, and
 * with Shift held a box is drawn around layers. A point of the order can be dragged.
 */
@Component({
  selector: 'wx-preview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourPicker, MotionPaths, Pen, StageGhosts, StageHandles, StageMenu, StageText],
  templateUrl: './preview.html',
  styleUrl: './preview.scss',
  host: { '(wheel)': 'wheel($event)', '(contextmenu)': 'openMenu($event)', '(dblclick)': 'openText($event)' },
})
export class Preview implements AfterViewInit {
  readonly scene = input.required<Scene>();
  readonly time = input.required<number>();
  readonly options = input.required<PreviewOptions>();
  /** As it stands, without a dry run: what is dragged. */
  readonly standing = input.required<Scene>();
  /** Ids of the layers that are selected. */
  readonly selection = input.required<ReadonlySet<string>>();
  readonly isPlaying = input(false);
  /** Whether layers can be dragged; with a dry run they are only outlined. */
  readonly canEdit = input(true);
  readonly sets = model<DragSets>('along');
  readonly tried = output<Scene | null>();
  readonly step = output<StageStep>();
  /** Layers to select alone: what a step gave, or one from the list at the pointer. */
  readonly chosen = output<readonly string[]>();
  /** One more layer to select, or one less. */
  readonly alsoPicked = output<string>();
  readonly optionsChange = output<PreviewOptions>();
  readonly drawn = output();
  readonly zoomed = output<number>();
  /** The point from which an order goes out, in shares of the frame. */
  readonly point = input<SharePoint | null>(null);
  readonly picked = output<string | null>();
  /** Layers in a box that was drawn with Shift held. */
  readonly boxed = output<readonly string[]>();
  readonly pointMoved = output<SharePoint>();

  protected readonly sights = SIGHTS;
  protected readonly matrixOf = sightMatrix;
  private readonly service = inject(PainterService);
  protected readonly cutOuts = inject(CutOutView);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly handles = viewChild(StageHandles);
  private readonly menu = viewChild.required(StageMenu);
  private readonly destroy = inject(DestroyRef);
  private readonly detector = inject(ChangeDetectorRef);
  protected readonly camera = new StageCamera(() => this.scene());
  protected readonly place = this.camera.place;
  protected readonly pointer = new StagePointer({
    camera: this.camera,
    point: this.point,
    pointMoved: (at) => this.pointMoved.emit(at),
    boxed: (band) => this.boxed.emit(this.layersIn(band)),
    clicked: (event) => this.clickAt(event),
  });

  protected readonly prepared = computed(() => {
    const compiled = compiledOnce(this.scene());
    return { compiled, frame: createFrame(compiled) };
  });

  /** Ticks from one ghost to the next; null where none are drawn, as while it plays. */
  protected readonly ghostsApart = computed(() => {
    const { ghosts } = this.options();
    const isShown = ghosts !== null && this.selection().size > 0 && !this.isPlaying();
    return isShown ? ghosts * frameTicks(this.scene().rate) : null;
  });

  constructor() {
    giveUpOnEscape(
      () => this.pointer.isDragging(),
      () => this.pointer.giveUp(),
    );
    effect(() => this.zoomed.emit(this.camera.zoom()));
    effect(() => {
      this.arrived();
      this.draw(this.time(), this.options(), this.point(), this.pointer.band());
      this.drawn.emit();
    });
  }

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([{ contentRect }]) =>
      this.camera.size.set({ width: contentRect.width, height: contentRect.height }),
    );
    observer.observe(this.canvas().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  focus(): void {
    this.canvas().nativeElement.focus({ preventScroll: true });
  }

  fit(): void {
    this.camera.fit();
  }

  /** Zooms so that what is selected, or without that the frame, fills the preview with some room around it. */
  zoomToSelection(): void {
    const { compiled, frame } = this.prepared();
    const boxes = compiled.layers.flatMap(({ id }, index) =>
      this.selection().has(id) ? [boundsAt(frame, index)] : [],
    );
    this.camera.zoomTo(unionOf(boxes));
  }

  /** Zooms about the middle by a factor. */
  zoomBy(factor: number): void {
    this.camera.zoomBy(factor);
  }

  protected wheel(event: WheelEvent): void {
    event.preventDefault();
    const { left, top } = this.canvas().nativeElement.getBoundingClientRect();
    this.camera.zoomBy(Math.exp(-event.deltaY / 400), { x: event.clientX - left, y: event.clientY - top });
  }

  protected press(event: PointerEvent): void {
    const handles = this.handles();
    const isMove = event.button === 0 && !event.shiftKey && !event.ctrlKey && !this.pointer.isOnPoint(event);
    if (event.button === 2) return;
    if (isMove && handles?.holds({ x: event.offsetX, y: event.offsetY })) {
      this.focus();
      return handles.start(event);
    }
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.pointer.press(event);
  }

  /** Keys of the stage: the arrow keys, and what its menu names. */
  protected key(event: KeyboardEvent): void {
    if (!this.handles()?.nudge(event) && !this.menu().key(event)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** The menu at the pointer, or at the button that asked for it. */
  protected openMenu(event: MouseEvent): void {
    event.preventDefault();
    const { left, top } = this.canvas().nativeElement.getBoundingClientRect();
    const [x, y] = [event.clientX - left, event.clientY - top];
    const at = this.camera.sceneAt({ x, y });
    const under = layersAt(this.prepared(), at, this.touches);
    // Pressed on something that is not selected, it is about that.
    const [first] = under;
    const { layers } = this.standing();
    if (first && event.type === 'contextmenu' && !isInSelection(layers, first, this.selection()))
      this.chosen.emit([outermost(layers, first)]);
    this.menu().open({ x, y, at, under: event.type === 'contextmenu' ? under : [] });
  }

  /** The layer whose words are edited where they stand. */
  protected readonly writing = signal<Layer | null>(null);
  private readonly actions = inject(StageActions);

  /** Words under the pointer, or the group that words were split into, are edited on the stage. */
  protected openText(event: MouseEvent): void {
    const at = this.sceneAt(event);
    if (!at || !this.canEdit() || this.isPlaying() || !(event.target as Element).closest('canvas, wx-stage-handles'))
      return;
    const byId = new Map(this.standing().layers.map((layer) => [layer.id, layer]));
    const found = layersAt(this.prepared(), at, this.touches)
      .map((layer) =>
        layer.parent !== null && byId.get(layer.parent)?.split ? (byId.get(layer.parent) as Layer) : layer,
      )
      .find((layer) => !layer.locked && wordsOf(byId.get(layer.id) ?? layer) !== null);
    if (found) this.writing.set(byId.get(found.id) ?? null);
  }

  protected write(layer: Layer, text: string): void {
    if (this.writing() === null) return;
    this.writing.set(null);
    this.actions.write(layer.id, text);
    this.focus();
  }

  /** Where the pen begins, while a path is drawn. */
  protected readonly penAt = signal<Point | null>(null);

  protected startPen(at: Point | null): void {
    const { width, height } = this.scene();
    if (!this.canEdit()) return;
    this.penAt.set(at ?? { x: Math.round(width / 2), y: Math.round(height / 2) });
    // The next key may come within the same frame, and is for the pen.
    this.detector.detectChanges();
  }

  protected endPen(path: NodePath | null): void {
    this.penAt.set(null);
    const drawn = path && this.actions.addPath(path);
    if (drawn) this.chosen.emit(drawn);
    this.focus();
  }

  /** Selects what lies under the pointer; with Ctrl that one, too. */
  protected clickAt(event: PointerEvent): void {
    const { left, top } = this.canvas().nativeElement.getBoundingClientRect();
    const layer = this.layerAt(event.clientX - left, event.clientY - top);
    if (layer !== null && (event.ctrlKey || event.metaKey)) this.alsoPicked.emit(layer);
    else this.picked.emit(layer);
  }

  /** Place of the scene under a pointer, px; null beside the preview. */
  sceneAt({ clientX, clientY }: MouseEvent): { x: number; y: number } | null {
    const { left, top, right, bottom } = this.canvas().nativeElement.getBoundingClientRect();
    if (clientX < left || clientX > right || clientY < top || clientY > bottom) return null;
    const { x, y } = this.camera.sceneAt({ x: clientX - left, y: clientY - top });
    return { x: Math.round(x), y: Math.round(y) };
  }

  /** Layers that a band on the preview touches. */
  private layersIn({ x, y, toX, toY }: Band): string[] {
    const [from, to] = [this.camera.sceneAt({ x, y }), this.camera.sceneAt({ x: toX, y: toY })];
    return layersTouching(this.prepared(), {
      left: Math.min(from.x, to.x),
      right: Math.max(from.x, to.x),
      top: Math.min(from.y, to.y),
      bottom: Math.max(from.y, to.y),
    });
  }

  private layerAt(x: number, y: number): string | null {
    return topmostAt(this.prepared(), this.camera.sceneAt({ x, y }), this.touches);
  }

  private readonly tester = createPathTester();
  private readonly touches: Touches = (layer, index, at) =>
    isOnLayer(this.prepared(), layer, index, at, LINE_REACH / this.camera.zoom(), this.tester);

  private draw(time: number, options: PreviewOptions, point: SharePoint | null, band: Band | null): void {
    const size = this.camera.size();
    const context = prepareCanvas(this.canvas().nativeElement, size);
    if (!context) return;
    const ratio = context.canvas.width / size.width;
    const { x, y, zoom } = this.place();
    const view = { scale: zoom * ratio, x: x * ratio, y: y * ratio };
    const { compiled, frame } = this.prepared();
    sampleFrame(compiled, time, frame);
    const { width, height } = this.scene();
    const place = { x: view.x, y: view.y, width: width * view.scale, height: height * view.scale };
    drawGround(context, place, options.checks, ratio);
    paintBackground(context, this.scene(), view);
    context.save();
    if (!options.outside) clipTo(context, place);
    const shutter = { at: time, step: frameTicks(this.scene().rate) };
    this.service.painter.paint(context, { compiled, frame, shutter, keptView: this.cutOuts.kept() }, view);
    context.restore();
    if (options.outside) dimOutside(context, place);
    if (options.grid !== null) drawGrid(context, place, options.grid * view.scale, ratio);
    if (options.safeAreas) drawSafeAreas(context, place, ratio);
    drawGuides(context, this.prepared(), view, ratio);
    if (point) drawPoint(context, this.camera.pixelOf(point), ratio);
    if (band) drawBand(context, band, ratio);
  }
}

/** Pixels beside a line within which a press means it. */
const LINE_REACH = 5;
