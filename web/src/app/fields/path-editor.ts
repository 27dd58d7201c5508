import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  nodesOfPath,
  pathOfNodes,
  pathProblem,
  withNodeAfter,
  withoutNode,
  withTurnedCorner,
  type NodePath,
  type PathNode,
} from '@wexikine/core';
import { giveUpOnEscape } from '../give-up';
import { Icon } from '../icons/icon';
import {
  addsAfter,
  frameOf,
  gripName,
  gripsOf,
  moveGrip,
  placeOfGrip,
  ticksAlong,
  type PathFrame,
  type PathGrip,
} from './path-grips';

const NUDGE = 1;
const NUDGE_FAR = 10;
/** About how large it is shown, in px. */
const WIDTH = 700;
const HEIGHT = 220;

/**
 * A line that is edited point by point: points and their handles are dragged or nudged, added, removed, made round; or
 * the line is drawn anew, point after point. Its place of rest is marked.
 */
@Component({
  selector: 'wx-path-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  templateUrl: './path-editor.html',
  styleUrl: './path-editor.scss',
})
export class PathEditor {
  readonly d = input.required<string>();
  /** Whether the line is about a place of rest, which is marked. */
  readonly hasRest = input(true);
  readonly changed = output<string>();

  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');
  protected readonly path = linkedSignal((): NodePath => nodesOfPath(this.d()));
  protected readonly selected = linkedSignal<string, number | null>({
    source: this.d,
    computation: (_, before) => before?.value ?? null,
  });
  /** Points of a line that is being drawn; null while none is. */
  protected readonly drawn = signal<readonly PathNode[] | null>(null);
  protected readonly problem = signal<string | null>(null);

  protected readonly line = computed(() => {
    const drawn = this.drawn();
    return drawn ? pathOfNodes({ nodes: drawn, isClosed: false }) : pathOfNodes(this.path());
  });
  /** What was shown as a drag began: a picture that changes its scale meanwhile would run away from the pointer. */
  private readonly held = signal<PathFrame | null>(null);
  private readonly frame = computed(() => this.held() ?? frameOf(this.path()));
  protected readonly box = computed(() => {
    const { left, top, width, height } = this.frame();
    return `${left} ${top} ${width} ${height}`;
  });
  /** Sizes on screen stay about the same whatever the line's own size. */
  protected readonly unit = computed(() => Math.max(this.frame().width / WIDTH, this.frame().height / HEIGHT));
  protected readonly grips = computed(() => (this.drawn() ? [] : gripsOf(this.path(), this.selected())));
  protected readonly arms = computed(() => {
    const node = this.path().nodes[this.selected() ?? -1];
    return this.grips()
      .filter(({ kind }) => kind !== 'node')
      .map(({ x, y }) => ({ x1: node.x, y1: node.y, x2: x, y2: y }));
  });
  protected readonly ticks = computed(() => ticksAlong(this.line()));

  constructor() {
    giveUpOnEscape(
      () => this.held() !== null,
      () => this.cancel(),
    );
  }

  protected gripName(grip: PathGrip): string {
    return gripName(grip, this.path());
  }

  protected gripWords({ x, y }: PathGrip): string {
    return `${Math.round(x)} across, ${Math.round(y)} down`;
  }

  protected press(event: PointerEvent, grip: PathGrip): void {
    this.held.set(this.frame());
    if (grip.kind === 'node') this.selected.set(grip.index);
    (event.target as SVGElement).setPointerCapture(event.pointerId);
    event.preventDefault();
    event.stopPropagation();
    (event.target as SVGElement).focus();
  }

  protected drag(event: PointerEvent, grip: PathGrip): void {
    if (this.held() === null) return;
    const place = this.placeOf(event);
    this.path.update((path) => moveGrip(path, grip, place, event.altKey));
  }

  /** A drag is one change, given on as it ends. */
  protected release(): void {
    if (this.held() === null) return;
    this.held.set(null);
    this.give(this.path());
  }

  /** A drag that was given up, or taken away by the system, leaves the line as it was. */
  protected cancel(): void {
    this.held.set(null);
    this.path.set(nodesOfPath(this.d()));
  }

  protected key(event: KeyboardEvent, grip: PathGrip): void {
    const step = event.shiftKey ? NUDGE_FAR : NUDGE;
    const by = ({ ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as const)[
      event.key as 'ArrowLeft'
    ];
    if (by) {
      event.preventDefault();
      // From where it is now: a quick second press comes before the first one is drawn.
      const from = placeOfGrip(this.path(), grip);
      this.give(moveGrip(this.path(), grip, { x: from.x + by[0], y: from.y + by[1] }, event.altKey));
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && grip.kind === 'node') {
      event.preventDefault();
      event.stopPropagation();
      this.remove(grip.index);
    } else if (event.key === 'Enter' && grip.kind === 'node') {
      event.preventDefault();
      this.selected.set(grip.index);
    }
  }

  protected add(): void {
    const index = addsAfter(this.path(), this.selected());
    this.selected.set(index + 1);
    this.give(withNodeAfter(this.path(), index));
  }

  protected round(): void {
    const index = this.selected();
    if (index !== null) this.give(withTurnedCorner(this.path(), index));
  }

  protected remove(index = this.selected()): void {
    if (index === null) return;
    this.selected.set(null);
    this.give(withoutNode(this.path(), index));
  }

  protected close(): void {
    const path = this.path();
    if (path.nodes.length > 2) this.give({ ...path, isClosed: !path.isClosed });
  }

  protected draw(): void {
    this.selected.set(null);
    this.drawn.set([]);
  }

  /** A press on the picture sets the next point of a line that is being drawn. */
  protected place(event: PointerEvent): void {
    const drawn = this.drawn();
    if (!drawn) return;
    const { x, y } = this.placeOf(event);
    this.drawn.set([...drawn, { x: Math.round(x), y: Math.round(y), before: null, after: null }]);
  }

  protected endDrawing(isKept: boolean): void {
    const nodes = this.drawn();
    this.drawn.set(null);
    if (isKept && nodes && nodes.length > 1) this.give({ nodes, isClosed: false });
  }

  protected type(event: Event): void {
    const field = event.target as HTMLTextAreaElement;
    const text = field.value.trim();
    const problem = pathProblem(text);
    this.problem.set(problem);
    if (problem === null && text !== this.d()) this.changed.emit(text);
  }

  private give(path: NodePath): void {
    const d = pathOfNodes(path);
    if (pathProblem(d) !== null) return;
    this.path.set(path);
    this.problem.set(null);
    if (d !== this.d()) this.changed.emit(d);
  }

  private placeOf({ clientX, clientY }: PointerEvent): { x: number; y: number } {
    const matrix = this.svg().nativeElement.getScreenCTM();
    const point = new DOMPoint(clientX, clientY).matrixTransform(matrix?.inverse());
    return { x: point.x, y: point.y };
  }
}
