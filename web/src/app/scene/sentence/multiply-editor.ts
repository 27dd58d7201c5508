import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  exchanged,
  usualColours,
  type CopyPresets,
  type Edge,
  type MultiplyRecipe,
  type PresetItem,
  type Recipe,
  type Scene,
  type SceneMoment,
  type SentenceField,
  type Shelf,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { EasingEditor } from '../../fields/easing-editor';
import { NumberField } from '../../fields/number-field';
import { ValueField } from '../../fields/value-field';
import { rolled } from '../panels/copies-panel';
import { ColourList, type ListedColour } from './colour-list';
import { MomentField } from './moment-field';
import type { WayValue } from './way-fields';
import { WayForm } from './way-form';
import { COPY_BEGINS, COPY_ENDS, LIFE_WAYS } from './ways';

type Range = MultiplyRecipe['scale'];
type Colours = NonNullable<MultiplyRecipe['colours']>;

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
  imports: [ColourList, EasingEditor, MomentField, NumberField, ValueField, WayForm],
  templateUrl: './multiply-editor.html',
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 10px;
      width: 320px;
    }
    .ranges {
      display: grid;
      grid-template-columns: 70px 1fr 1fr;
      gap: 6px 8px;
      align-items: end;
      font-size: 13px;
    }
    .ranges > span {
      align-self: center;
    }
    .chances {
      display: grid;
      gap: 6px;
      max-height: 260px;
      margin: 0;
      padding: 0;
      overflow: auto;
      list-style: none;
    }
    .chances li {
      display: flex;
      gap: 8px;
      align-items: center;
      justify-content: space-between;
    }
    .chances .weight {
      width: 56px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .problem {
      color: var(--rose);
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

  protected readonly begins = COPY_BEGINS;
  protected readonly ends = COPY_ENDS;
  protected readonly lives = LIFE_WAYS;
  protected readonly problem = signal<string | null>(null);
  protected readonly check = computed(() => timeCheck(this.scene().rate));
  protected readonly missing = computed(() => {
    const missing = new Set(missingExtras(this.recipe()));
    return EXTRAS.filter(([extra]) => missing.has(extra));
  });
  /** The range of the field, with how its numbers are shown. */
  protected readonly range = computed(() => {
    const { scale, turn, opacity } = this.recipe();
    switch (this.field()) {
      case 'size':
        return {
          label: 'Size of the copies',
          unit: '%',
          factor: 100,
          least: 0,
          most: 10_000,
          value: scale,
          part: 'scale',
        } as const;
      case 'turns':
        return {
          label: 'How copies are turned',
          unit: '°',
          factor: 1,
          least: -36_000,
          most: 36_000,
          value: turn,
          part: 'turn',
        } as const;
      case 'clear':
        return {
          label: 'Opacity of the copies',
          unit: '%',
          factor: 100,
          least: 0,
          most: 100,
          value: opacity,
          part: 'opacity',
        } as const;
      default:
        return null;
    }
  });
  protected readonly side = computed(() => {
    const field = this.field();
    return field === 'in' || field === 'out' ? field : null;
  });
  /** Presets that could bring copies in or out, with how often each comes; 0 is never. */
  protected readonly chances = computed(() => {
    const side = this.side();
    if (side === null) return [];
    const phase = side === 'in' ? 'entrance' : 'exit';
    const weights = new Map(this.recipe()[side]?.presets.map(({ id, weight }) => [id, weight]));
    return this.items()
      .filter(({ body }) => body.phase === phase)
      .map(({ id, name }) => ({ id, name, weight: weights.get(id) ?? 0 }));
  });

  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value.trim();
  }

  protected set(change: Partial<MultiplyRecipe>): void {
    this.problem.set(null);
    this.changed.emit({ ...this.recipe(), ...change });
  }

  protected setMoment(part: 'from' | 'to', value: Edge): void {
    if (value.by === 'time' || value.by === 'cue') this.set({ [part]: value as SceneMoment });
  }

  protected setWay(part: 'begin' | 'end' | 'life', value: WayValue): void {
    this.set({ [part]: value } as unknown as Partial<MultiplyRecipe>);
  }

  protected exchange(): void {
    this.problem.set(null);
    this.changed.emit(exchanged(this.recipe()));
  }

  protected setRange(end: 'begin' | 'end', place: 0 | 1, text: string): void {
    const range = this.range();
    const number = Number(
      text
        .replace(/[%°\s]/g, '')
        .replace('−', '-')
        .replace(',', '.'),
    );
    if (!range || text === '' || !(number >= range.least && number <= range.most))
      return this.problem.set(`Write a number from ${range?.least ?? 0} to ${range?.most ?? 0}.`);
    const pair = range.value[end].map((value, i) => (i === place ? number / range.factor : value)) as [number, number];
    this.set({ [range.part]: { ...range.value, [end]: pair } });
  }

  protected shown(value: number): string {
    const range = this.range();
    return range ? `${Math.round(value * range.factor * 100) / 100}${range.unit === '°' ? '°' : ' %'}` : '';
  }

  protected setChance(id: string, text: string): void {
    const side = this.side();
    const weight = Number(text.replace(',', '.'));
    if (side === null || text === '' || !(weight >= 0 && weight <= 1_000))
      return this.problem.set('Write how often it comes, such as 2; 0 is never.');
    const before = this.recipe()[side]?.presets ?? [];
    const others = before.filter((one) => one.id !== id);
    const standing = before.find((one) => one.id === id);
    const presets = weight > 0 ? [...others, { ...standing, id, weight }] : others;
    if (presets.length === 0) return this.problem.set('One of them must come: set another one above 0 first.');
    this.set({ [side]: { presets, length: this.recipe()[side]?.length ?? '10f' } });
  }

  protected setLength(text: string): void {
    const side = this.side();
    const standing: CopyPresets | undefined = side === null ? undefined : this.recipe()[side];
    if (side !== null && standing) this.set({ [side]: { ...standing, length: text } });
  }

  protected setColours(change: Partial<Colours>): void {
    const { colours } = this.recipe();
    if (colours) this.set({ colours: { ...colours, ...change } });
  }

  protected listColours(list: readonly ListedColour[]): void {
    this.setColours({ colours: [...list] });
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
  protected roll(what: 'all' | 'place' | 'time' | 'look'): void {
    this.problem.set(null);
    this.changed.emit(rolled(this.recipe(), what));
  }
}
