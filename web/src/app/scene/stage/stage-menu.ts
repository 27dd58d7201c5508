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
import { flipsOf, isOneGroup, splitsOf, type Flip } from './menu-facts';
import { NEW_SHAPES, type ShapeKind } from './new-shapes';
import { StageActions } from './stage-actions';
import { stageCommand } from './stage-keys';
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
/** How wide a menu becomes at most, and how far beside the pointer it opens, px. */
const [WIDEST, ASIDE] = [280, 3];

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
  protected readonly depths = DEPTHS;
  protected readonly nine = NINE;
  protected readonly shapes = NEW_SHAPES;
  protected readonly under = computed(() => this.place()?.under.slice(0, MOST_UNDER) ?? []);
  protected readonly count = computed(() => this.selection().size);
  protected readonly isGroup = computed(() => isOneGroup(this.scene(), this.selection()));
  protected readonly splits = computed(() => splitsOf(this.scene(), this.selection()));
  protected readonly flips = computed(() => flipsOf(this.scene(), this.selection()));
  protected readonly ways = SPLIT_WAYS;

  protected async splitBox(): Promise<void> {
    this.take(await this.actions.splitBox(this.selection()));
  }

  /** Opens at a place of the page. */
  open(place: MenuPlace): void {
    this.place.set(place);
    const { style } = this.corner().nativeElement;
    // Beside the pointer, on the side where there is room: what lies under it would open a menu of its own at once.
    const aside = place.x + WIDEST > innerWidth ? -ASIDE : ASIDE;
    [style.left, style.top] = [`${place.x + aside}px`, `${place.y}px`];
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

  protected flip(what: Flip['flips']): void {
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

  /** Does what a key asks for, where it means anything on the stage. True where it did. */
  key(event: KeyboardEvent): boolean {
    const ids = this.selection();
    const command = stageCommand(event, { count: ids.size, canEdit: this.canEdit() });
    switch (command) {
      case null:
        return false;
      case 'all':
        this.take(this.actions.all());
        return true;
      case 'pen':
        this.penWanted.emit(null);
        return true;
      case 'zoom':
        this.zoomWanted.emit();
        return true;
      case 'copy':
        this.copy();
        return true;
      case 'group':
      case 'ungroup':
      case 'duplicate':
      case 'remove':
        this.take(this.actions[command](ids));
        return true;
      case 'front':
      case 'forward':
      case 'backward':
      case 'back':
        this.actions.depth(ids, command);
        return true;
    }
  }

  /** The text goes to the clipboard of the system, so that it can be pasted into another window. */
  protected copy(): void {
    const text = this.actions.copy(this.selection());
    if (text !== null) void navigator.clipboard.writeText(text).catch(() => undefined);
  }
}
