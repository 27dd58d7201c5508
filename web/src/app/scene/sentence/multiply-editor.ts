import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  exchanged,
  usualColours,
  type Edge,
  type MultiplyRecipe,
  type PresetItem,
  type Recipe,
  type Scene,
  type SceneMoment,
  type SentenceField,
  type Shelf,
} from '@wexikine/core';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { NumberField } from '../../fields/number-field';
import { rolled } from '../panels/copies-panel';
import { CopyColours } from './copy-colours';
import { CopyPresetsField } from './copy-presets';
import { CopyRange, type CopyRangeKind } from './copy-range';
import { MomentField } from './moment-field';
import type { WayValue } from './way-fields';
import { WayForm } from './way-form';
import { COPY_BEGINS, COPY_ENDS, LIFE_WAYS } from './ways';

type Range = MultiplyRecipe['scale'];

const EXTRAS = [
  ['turns', 'Turned', 'each its own way, or while it lives'],
  ['clear', 'Opacity', 'each its own, or while it lives'],
  ['in', 'In by a preset', 'of the library, or one of several'],
  ['out', 'Out by a preset', 'of the library, or one of several'],
  ['colours', 'Colours', 'from a list, some as outlines'],
] as const;
type Extra = (typeof EXTRAS)[number][0];

const BEGUN: Readonly<Record<'turns' | 'clear' | 'colours', Partial<MultiplyRecipe>>> = {
  turns: { turn: { begin: [-180, 180], end: [-180, 180] } },
  clear: { opacity: { begin: [0.35, 1], end: [0.35, 1] } },
  colours: { colours: usualColours() },
};
/** What of copies can be drawn anew alone, and all of it. */
const ROLLS = ['place', 'time', 'look', 'all'] as const;
const NONE = { turns: 'turn', clear: 'opacity' } as const;

function isPlain({ begin, end }: Range, none: number): boolean {
  return [...begin, ...end].every((value) => value === none);
}

/** What a sentence of copies does not say yet. */
export function missingExtras(recipe: MultiplyRecipe): Extra[] {
  const isSaid: Readonly<Record<Extra, boolean>> = {
    turns: !isPlain(recipe.turn, 0),
    clear: !isPlain(recipe.opacity, 1),
    in: recipe.in !== undefined,
    out: recipe.out !== undefined,
    colours: recipe.colours !== undefined,
  };
  return EXTRAS.map(([extra]) => extra).filter((extra) => !isSaid[extra]);
}

/** The fields of the sentence of copies. */
@Component({
  selector: 'wx-multiply-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CopyColours, CopyPresetsField, CopyRange, EasingEditor, MomentField, NumberField, WayForm],
  templateUrl: './multiply-editor.html',
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 10px;
      width: 340px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class MultiplyEditor {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<MultiplyRecipe>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly items = input.required<readonly PresetItem[]>();
  readonly playhead = input.required<number>();
  readonly changed = output<MultiplyRecipe>();
  readonly added = output<{ recipe: Recipe; field: SentenceField }>();
  readonly done = output();

  protected readonly rolls = ROLLS;
  protected readonly begins = COPY_BEGINS;
  protected readonly ends = COPY_ENDS;
  protected readonly lives = LIFE_WAYS;
  protected readonly missing = computed(() => {
    const missing = new Set(missingExtras(this.recipe()));
    return EXTRAS.filter(([extra]) => missing.has(extra));
  });
  /** What of the copies the field gives a range of. */
  protected readonly range = computed((): CopyRangeKind | null => {
    const kinds: Partial<Record<string, CopyRangeKind>> = { size: 'scale', turns: 'turn', clear: 'opacity' };
    return kinds[this.field()] ?? null;
  });
  protected readonly side = computed(() => {
    const field = this.field();
    return field === 'in' || field === 'out' ? field : null;
  });
  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value.trim();
  }

  protected set(change: Partial<MultiplyRecipe>): void {
    this.changed.emit({ ...this.recipe(), ...change });
  }

  protected setPart(part: CopyRangeKind | 'in' | 'out', value: unknown): void {
    this.set({ [part]: value });
  }

  protected setMoment(part: 'from' | 'to', value: Edge): void {
    if (value.by === 'time' || value.by === 'cue') this.set({ [part]: value as SceneMoment });
  }

  protected setWay(part: 'begin' | 'end' | 'life', value: WayValue): void {
    this.set({ [part]: value } as unknown as Partial<MultiplyRecipe>);
  }

  protected exchange(): void {
    this.changed.emit(exchanged(this.recipe()));
  }

  protected add(extra: Extra): void {
    const recipe = { ...this.recipe(), ...this.begun(extra) };
    this.added.emit({ recipe, field: extra });
  }

  private begun(extra: Extra): Partial<MultiplyRecipe> {
    if (extra !== 'in' && extra !== 'out') return BEGUN[extra];
    const phase = extra === 'in' ? 'entrance' : 'exit';
    const wanted = extra === 'in' ? 'fade-in' : 'fade-out';
    const presets = this.items().filter(({ body }) => body.phase === phase);
    const first = presets.find(({ id }) => id === wanted) ?? presets[0];
    return first ? { [extra]: { presets: [{ id: first.id, weight: 1 }], length: '10f' } } : {};
  }

  /** Says no more of it. */
  protected drop(extra: Extra): void {
    const recipe = this.recipe();
    if (extra === 'turns' || extra === 'clear') {
      const none = extra === 'turns' ? 0 : 1;
      this.set({ [NONE[extra]]: { begin: [none, none], end: [none, none] } });
    } else {
      const { [extra]: _gone, ...rest } = recipe;
      this.changed.emit(rest as MultiplyRecipe);
    }
    this.done.emit();
  }

  /** Draws anew: all, or only places, times or looks. */
  protected roll(what: (typeof ROLLS)[number]): void {
    this.changed.emit(rolled(this.recipe(), what));
  }
}
