import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatMenuModule, MatMenuTrigger } from '@angular/material/menu';
import {
  SIGHTS,
  SPLIT_WAYS,
  type AlignSide,
  type DragSets,
  type Layer,
  type Point,
  type Scene,
  type Sight,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { ChoiceMenu, type MenuChoice } from './choice-menu';
import { NEW_SHAPES, type ShapeKind } from './new-shapes';
import { StageActions } from './stage-actions';
import { WAY_CHANGES } from './way-changes';

/** Where the menu was asked for: on the page, in the scene, and which layers lie there, the topmost first. */
export interface MenuPlace {
  readonly x: number;
  readonly y: number;
  readonly at: Point;
  readonly under: readonly Layer[];
}

const SIDES: readonly { readonly side: AlignSide; readonly icon: string; readonly label: string }[] = [
  { side: 'left', icon: 'align_horizontal_left', label: 'Left sides' },
  { side: 'centre', icon: 'align_horizontal_center', label: 'Centres, across' },
  { side: 'right', icon: 'align_horizontal_right', label: 'Right sides' },
  { side: 'top', icon: 'align_vertical_top', label: 'Tops' },
  { side: 'middle', icon: 'align_vertical_center', label: 'Middles, down' },
  { side: 'bottom', icon: 'align_vertical_bottom', label: 'Bottoms' },
];
const GAPS = [
  { way: 'across', icon: 'horizontal_distribute', label: 'Equal gaps across' },
  { way: 'down', icon: 'vertical_distribute', label: 'Equal gaps down' },
] as const;
/** What is switched on a layer and back again. */
const FLIPS = [
  { flips: 'locked', icon: 'lock', label: 'Lock or unlock' },
  { flips: 'hidden', icon: 'visibility_off', label: 'Hide or show' },
  { flips: 'others', icon: 'visibility', label: 'Only these, or all again' },
  { flips: 'guide', icon: 'flag', label: 'Make a guide, or a layer again' },
] as const;
const DEPTHS = [
  { step: 'front', label: 'To the front', keys: 'Shift PgUp' },
  { step: 'forward', label: 'Forward', keys: 'PgUp' },
  { step: 'backward', label: 'Backward', keys: 'PgDn' },
  { step: 'back', label: 'To the back', keys: 'Shift PgDn' },
] as const;
const NINE: readonly Point[] = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y })));
/** Grids to choose from, px of the scene. */
const GRIDS: readonly MenuChoice<number>[] = [
  { value: null, label: 'none' },
  ...[10, 20, 40, 60, 80, 120, 240].map((value) => ({ value, label: `every ${value} px` })),
];
/** Frames from one ghost to the next, to choose from. */
const GHOSTS: readonly MenuChoice<number>[] = [
  { value: null, label: 'none' },
  { value: 1, label: 'every frame' },
  ...[2, 5, 10, 25].map((value) => ({ value, label: `every ${value} frames` })),
];
const SIGHT_CHOICES: readonly MenuChoice<Sight>[] = [
  { value: null, label: 'as most people do' },
  ...SIGHTS.map(({ id, label }) => ({ value: id, label })),
];
const MOST_UNDER = 12;

/** What can be done with layers on the stage, at the pointer or from its button. */
@Component({
  selector: 'wx-stage-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceMenu, Icon, MatMenuModule],
  templateUrl: './stage-menu.html',
  styleUrl: './stage-menu.scss',
})
export class StageMenu {
  readonly scene = input.required<Scene>();
  readonly selection = input.required<ReadonlySet<string>>();
  readonly sets = input.required<DragSets>();
  readonly time = input.required<number>();
  readonly canEdit = input.required<boolean>();
  /** Whether the ways of what is selected are shown. */
  readonly hasPaths = input.required<boolean>();
  readonly pathsFlipped = output();
  /** Eyes with which the preview is seen; null for most people's. */
  readonly sight = input<Sight | null>(null);
  readonly sightChosen = output<Sight | null>();
  /** Px from one line of the grid to the next; null without one. */
  readonly grid = input<number | null>(null);
  readonly gridChosen = output<number | null>();
  /** Frames from one ghost of what is selected to the next; null without them. */
  readonly ghosts = input<number | null>(null);
  readonly ghostsChosen = output<number | null>();
  readonly zoomWanted = output();
  /** A path is to be drawn by pen, beginning at a place of the scene. */
  readonly penWanted = output<Point | null>();
  protected readonly gridChoices = GRIDS;
  protected readonly ghostChoices = GHOSTS;
  protected readonly wayChanges = WAY_CHANGES;
  protected readonly sightChoices = SIGHT_CHOICES;
  /** The menu was closed; the stage has the keys again. */
  readonly left = output();
  /** Layers to select: one of those under the pointer, or what a step gave. */
  readonly selected = output<readonly string[]>();

  protected readonly actions = inject(StageActions);
  private readonly trigger = viewChild.required(MatMenuTrigger);
  private readonly corner = viewChild.required<ElementRef<HTMLElement>>('corner');
  protected readonly place = signal<MenuPlace | null>(null);
  protected readonly sides = SIDES;
  protected readonly gaps = GAPS;
  protected readonly flips = FLIPS;
  protected readonly depths = DEPTHS;
  protected readonly nine = NINE;
  protected readonly shapes = NEW_SHAPES;
  protected readonly under = computed(() => this.place()?.under.slice(0, MOST_UNDER) ?? []);
  protected readonly count = computed(() => this.selection().size);
  protected readonly isGroup = computed(() => {
    const [id, ...others] = this.selection();
    return others.length === 0 && this.scene().layers.some((layer) => layer.id === id && layer.kind === 'group');
  });

  /** What one selected layer can be split into, or joined from. */
  protected readonly splits = computed((): 'words' | 'box' | 'joined' | null => {
    const [id, ...others] = this.selection();
    const layer = others.length > 0 ? undefined : this.scene().layers.find((one) => one.id === id);
    if (!layer) return null;
    if (layer.split) return 'joined';
    return layer.source.type === 'text' ? 'words' : ['picture', 'rectangle'].includes(layer.source.type) ? 'box' : null;
  });
  protected readonly ways = SPLIT_WAYS;

  protected async splitBox(): Promise<void> {
    this.take(await this.actions.splitBox(this.selection()));
  }

  /** Opens at a place of the page. */
  open(place: MenuPlace): void {
    this.place.set(place);
    const { style } = this.corner().nativeElement;
    [style.left, style.top] = [`${place.x}px`, `${place.y}px`];
    this.trigger().openMenu();
  }

  protected take(ids: readonly string[] | null): void {
    // By itself it stays open where the item that led to a menu of its own is gone with what was selected.
    this.trigger().closeMenu();
    if (ids) this.selected.emit(ids);
  }

  protected add(kind: ShapeKind): void {
    this.take(this.actions.add(kind, this.place()?.at ?? null));
  }

  protected align(side: AlignSide): void {
    this.actions.align(this.selection(), side, this.sets(), Math.round(this.time()));
  }

  protected flip(what: (typeof FLIPS)[number]['flips']): void {
    if (what === 'others') this.actions.onlyThese(this.selection());
    else this.actions.flip(this.selection(), what);
  }

  protected spread(way: 'across' | 'down'): void {
    this.actions.spread(this.selection(), way, this.sets(), Math.round(this.time()));
  }

  protected anchor(place: Point): void {
    this.actions.anchor(this.selection(), place, Math.round(this.time()));
  }

  protected anchorLabel({ x, y }: Point): string {
    const across = x === 0 ? 'left' : x === 1 ? 'right' : 'middle';
    const down = y === 0 ? 'top' : y === 1 ? 'bottom' : 'middle';
    return down === across ? 'Anchor in the middle' : `Anchor ${down} ${across}`;
  }

  /** What a key does with what is selected, where it means anything on the stage. True where it did. */
  key({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean {
    const ids = this.selection();
    const isCopy = (ctrlKey || metaKey) && key.toLowerCase() === 'c';
    if ((ctrlKey || metaKey) && key.toLowerCase() === 'a') {
      this.take(this.actions.all());
      return true;
    }
    if (key === 'n' && !ctrlKey && !metaKey && !altKey && this.canEdit()) {
      this.penWanted.emit(null);
      return true;
    }
    if (key === 'z' && !ctrlKey && !metaKey && !altKey) {
      this.zoomWanted.emit();
      return true;
    }
    if (altKey || ((ctrlKey || metaKey) && !isCopy) || !this.canEdit() || ids.size === 0) return false;
    if (isCopy) this.copy();
    else if (key === 'g') this.take(this.actions.group(ids));
    else if (key === 'G') this.take(this.actions.ungroup(ids));
    else if (key === 'd') this.take(this.actions.duplicate(ids));
    else if (key === 'Delete') this.take(this.actions.remove(ids));
    else if (key === 'PageUp') this.actions.depth(ids, shiftKey ? 'front' : 'forward');
    else if (key === 'PageDown') this.actions.depth(ids, shiftKey ? 'back' : 'backward');
    else return false;
    return true;
  }

  /** The text goes to the clipboard of the system, so that it can be pasted into another window. */
  protected copy(): void {
    const text = this.actions.copy(this.selection());
    if (text !== null) void navigator.clipboard.writeText(text).catch(() => undefined);
  }
}
