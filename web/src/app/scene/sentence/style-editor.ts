import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  isSeen,
  STYLED_COLOURS,
  STYLE_PART_FACTS,
  STYLE_PARTS,
  type ColourPart,
  type ColourVariation,
  type Recipe,
  type Scene,
  type SentenceField,
  type Shelf,
  type StylePart,
  type StyleRecipe,
} from '@wexikine/core';
import { ColourList, type ListedColour } from './colour-list';
import type { WayValue } from './way-fields';
import { WayForm } from './way-form';
import { COLOUR_WAYS } from './ways';

const FIRST: ColourVariation = { by: 'step', lightness: -0.06, chroma: 0, hue: 0 };
const HOWS = [
  ['turns', 'by turns'],
  ['random', 'by chance'],
  ['ramp', 'as a ramp along the order'],
] as const;

/** Colours of a style that do not differ from layer to layer yet. */
export function missingColours({ parts, vary }: StyleRecipe): ColourPart[] {
  return STYLED_COLOURS.filter((part) => parts.includes(part) && vary[part] === undefined);
}

/** The fields of a style's sentence: whose look, which parts of it, and how colours differ. */
@Component({
  selector: 'wx-style-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourList, WayForm],
  template: `
    @switch (kind()) {
      @case ('from') {
        <strong>Whose look they get</strong>
        <label class="choice"
          ><input type="radio" name="from" [checked]="recipe().from.by === 'own'" (change)="setFrom(null)" /><span
            >Each keeps its own <small>only what differs is set</small></span
          ></label
        >
        <label class="field-label"
          >As this layer is
          <select class="text-field" (change)="setFrom(value($event))">
            @if (from() === null) {
              <option value="" selected disabled>choose a layer</option>
            }
            @for (layer of layers(); track layer.id) {
              <option [value]="layer.id" [selected]="layer.id === from()">{{ layer.name }}</option>
            }
          </select>
        </label>
        @if (from() !== null) {
          <label class="choice"
            ><input type="checkbox" [checked]="isLinked()" (change)="flipLink()" /><span
              >They follow it <small>whenever its look is changed</small></span
            ></label
          >
        }
      }
      @case ('style-parts') {
        <strong>Which parts of the look</strong>
        <div class="chips" role="group" aria-label="Parts of the look">
          @for (part of parts; track part) {
            <button
              class="chip"
              type="button"
              [class.on]="has(part)"
              [attr.aria-pressed]="has(part)"
              (click)="flip(part)"
            >
              {{ facts[part].label }}
            </button>
          }
        </div>
        @if (recipe().from.by === 'own') {
          <p class="quiet-text">With each layer’s own look only colours that differ are set; take one with +.</p>
        }
      }
      @case ('add-parameter') {
        <strong>Which colour differs from layer to layer</strong>
        <div class="choices">
          @for (part of missing(); track part) {
            <button class="choice" type="button" (click)="add(part)">
              <span>{{ facts[part].label }}</span>
            </button>
          }
        </div>
      }
      @case ('vary') {
        @if (variation(); as standing) {
          <wx-way-form
            [label]="'How the ' + facts[part()].label + ' differs'"
            [ways]="ways"
            [value]="standing"
            [scene]="scene()"
            [shelf]="shelf()"
            [playhead]="playhead()"
            (changed)="setVariation($event)"
          />
          @if (standing.by === 'colours') {
            <label class="field-label"
              >They come
              <select
                class="text-field"
                (change)="setVariation({ by: 'colours', colours: standing.colours, how: value($event) })"
              >
                @for (how of hows; track how[0]) {
                  <option [value]="how[0]" [selected]="how[0] === standing.how">{{ how[1] }}</option>
                }
              </select>
            </label>
            <wx-colour-list [colours]="listed()" (changed)="setColours($event)" />
          }
          <button class="wx-button quiet" type="button" (click)="removeVariation()">The same for all</button>
        }
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 10px;
      width: 320px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class StyleEditor {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<StyleRecipe>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly playhead = input.required<number>();
  readonly changed = output<StyleRecipe>();
  readonly added = output<{ recipe: Recipe; field: SentenceField }>();
  readonly done = output();

  protected readonly ways = COLOUR_WAYS;
  protected readonly hows = HOWS;
  protected readonly parts = STYLE_PARTS;
  protected readonly facts = STYLE_PART_FACTS;
  protected readonly kind = computed(() => (this.field().startsWith('vary:') ? 'vary' : this.field()));
  protected readonly part = computed(() => this.field().slice('vary:'.length) as ColourPart);
  protected readonly variation = computed(() => this.recipe().vary[this.part()]);
  protected readonly missing = computed(() => missingColours(this.recipe()));
  protected readonly layers = computed(() => this.scene().layers.filter(isSeen));
  protected readonly from = computed(() => {
    const { from } = this.recipe();
    return from.by === 'layer' ? from.layer : null;
  });
  protected readonly isLinked = computed(() => {
    const { from } = this.recipe();
    return from.by === 'layer' && from.isLinked === true;
  });
  protected readonly listed = computed((): readonly ListedColour[] => {
    const variation = this.variation();
    return variation?.by === 'colours' ? variation.colours.map((colour) => ({ colour, weight: 1 })) : [];
  });

  protected value(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  protected has(part: StylePart): boolean {
    return this.recipe().parts.includes(part);
  }

  protected setFrom(layer: string | null): void {
    const from = this.recipe().from;
    const isLinked = from.by === 'layer' && from.isLinked === true;
    this.set({
      from: layer === null ? { by: 'own' } : { by: 'layer', layer, ...(isLinked ? { isLinked } : {}) },
    });
  }

  protected flipLink(): void {
    const layer = this.from();
    if (layer === null) return;
    this.set({ from: this.isLinked() ? { by: 'layer', layer } : { by: 'layer', layer, isLinked: true } });
  }

  protected flip(part: StylePart): void {
    const { parts } = this.recipe();
    const next = STYLE_PARTS.filter((one) => parts.includes(one) !== (one === part));
    if (next.length > 0) this.set({ parts: next });
  }

  protected add(part: ColourPart): void {
    const recipe = { ...this.recipe(), vary: { ...this.recipe().vary, [part]: FIRST } };
    this.added.emit({ recipe, field: `vary:${part}` });
  }

  protected setVariation(value: WayValue): void {
    this.set({ vary: { ...this.recipe().vary, [this.part()]: value as unknown as ColourVariation } });
  }

  protected setColours(list: readonly ListedColour[]): void {
    const variation = this.variation();
    if (variation?.by === 'colours') this.setVariation({ ...variation, colours: list.map(({ colour }) => colour) });
  }

  protected removeVariation(): void {
    const { [this.part()]: _gone, ...vary } = this.recipe().vary;
    this.set({ vary });
    this.done.emit();
  }

  private set(change: Partial<StyleRecipe>): void {
    this.changed.emit({ ...this.recipe(), ...change });
  }
}
