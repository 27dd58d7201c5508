import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  channelOf,
  isSeen,
  paletteColours,
  STYLED_COLOURS,
  STYLE_PART_FACTS,
  STYLE_PARTS,
  type ChannelId,
  type ColourPart,
  type ColourVariation,
  type NumberVariation,
  type Recipe,
  type Scene,
  type SentenceField,
  type Shelf,
  type StylePart,
  type StyleRecipe,
} from '@wexikine/core';
import { ColourList, type ListedColour } from './colour-list';
import {
  likeLayer,
  looksIn,
  missingColours,
  missingNumbers,
  palettesIn,
  withColour,
  withLinkFlipped,
  withLook,
  withNumber,
  withoutColour,
  withoutNumber,
  withPartFlipped,
  withRamp,
} from './style-choices';
import type { WayValue } from './way-fields';
import { WayForm } from './way-form';
import { COLOUR_WAYS, numberWays } from './ways';

const HOWS = [
  ['turns', 'by turns'],
  ['random', 'by chance'],
  ['ramp', 'as a ramp along the order'],
] as const;

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
        <label class="field-label"
          >With this look of the library
          <select class="text-field" (change)="setLook(value($event))">
            @if (look() === null) {
              <option value="" selected disabled>choose a look</option>
            }
            @for (item of looks(); track item.id) {
              <option [value]="item.id" [selected]="item.id === look()">{{ item.name }}</option>
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
        <strong>What differs from layer to layer</strong>
        <div class="choices">
          @for (part of missing(); track part) {
            <button class="choice" type="button" (click)="add(part)">
              <span>{{ facts[part].label }} <small>its colour</small></span>
            </button>
          }
          @for (channel of missingChannels(); track channel) {
            <button class="choice" type="button" (click)="addNumber(channel)">
              <span>{{ labelOf(channel) }}</span>
            </button>
          }
        </div>
      }
      @case ('number') {
        @if (number(); as standing) {
          <wx-way-form
            [label]="'How the ' + labelOf(channel()) + ' differs'"
            [ways]="numberWays()"
            [value]="standing"
            [scene]="scene()"
            [shelf]="shelf()"
            [playhead]="playhead()"
            (changed)="setNumber($event)"
          />
          <button class="wx-button quiet" type="button" (click)="removeNumber()">As the look has it</button>
        }
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
          @if (standing.by === 'palette') {
            <label class="field-label"
              >Palette
              <select
                class="text-field"
                (change)="setVariation({ by: 'palette', id: value($event), how: standing.how })"
              >
                @for (item of palettes(); track item.id) {
                  <option [value]="item.id" [selected]="item.id === standing.id">{{ item.name }}</option>
                }
              </select>
            </label>
            <label class="field-label"
              >Of it
              <select class="text-field" (change)="setRamp(value($event))">
                <option value="" [selected]="standing.ramp === undefined">its colours</option>
                @for (ramp of ramps(); track ramp) {
                  <option [value]="ramp" [selected]="ramp === standing.ramp">the ramp “{{ ramp }}”</option>
                }
              </select>
            </label>
            <div class="stripe" aria-hidden="true">
              @for (colour of shown(); track $index) {
                <span [style.background]="colour"></span>
              }
            </div>
          }
          @if (standing.by === 'colours' || standing.by === 'palette') {
            <label class="field-label"
              >They come
              <select class="text-field" (change)="setVariation({ ...$any(standing), how: value($event) })">
                @for (how of hows; track how[0]) {
                  <option [value]="how[0]" [selected]="how[0] === standing.how">{{ how[1] }}</option>
                }
              </select>
            </label>
          }
          @if (standing.by === 'colours') {
            <wx-colour-list [colours]="listed()" (changed)="setColours($event)" />
          }
          @if (problem(); as sentence) {
            <p class="problem" role="alert">{{ sentence }}</p>
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
    wx-way-form {
      width: 100%;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .stripe {
      display: flex;
      height: 22px;
      border-radius: 6px;
      overflow: hidden;
    }
    .stripe span {
      flex: 1;
    }
    .problem {
      color: var(--rose);
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
  protected readonly kind = computed(() => {
    const field = this.field();
    if (!field.startsWith('vary:')) return field;
    return STYLED_COLOURS.some((part) => field === `vary:${part}`) ? 'vary' : 'number';
  });
  protected readonly channel = computed(() => this.field().slice('vary:'.length) as ChannelId);
  protected readonly number = computed(() => this.recipe().numbers?.[this.channel()]);
  protected readonly numberWays = computed(() => numberWays(channelOf(this.channel()).unit));
  protected readonly missingChannels = computed(() => missingNumbers(this.recipe()));
  protected readonly part = computed(() => this.field().slice('vary:'.length) as ColourPart);
  protected readonly variation = computed(() => this.recipe().vary[this.part()]);
  protected readonly missing = computed(() => missingColours(this.recipe()));
  protected readonly layers = computed(() => this.scene().layers.filter(isSeen));
  protected readonly from = computed(() => {
    const { from } = this.recipe();
    return from.by === 'layer' ? from.layer : null;
  });
  protected readonly look = computed(() => {
    const { from } = this.recipe();
    return from.by === 'look' ? from.id : null;
  });
  protected readonly looks = computed(() => looksIn(this.shelf()));
  protected readonly palettes = computed(() => palettesIn(this.shelf()));
  private readonly palette = computed(() => {
    const variation = this.variation();
    return variation?.by === 'palette' ? this.palettes().find(({ id }) => id === variation.id)?.body : undefined;
  });
  protected readonly ramps = computed(() => (this.palette()?.ramps ?? []).map(({ name }) => name));
  protected readonly shown = computed(() => {
    const [variation, palette] = [this.variation(), this.palette()];
    return variation?.by === 'palette' && palette ? paletteColours(palette, variation.ramp) : [];
  });
  protected readonly problem = signal<string | null>(null);
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
    this.changed.emit(likeLayer(this.recipe(), layer));
  }

  protected setLook(id: string): void {
    const item = this.looks().find((one) => one.id === id);
    if (item) this.changed.emit(withLook(this.recipe(), item));
  }

  protected setRamp(ramp: string): void {
    const variation = this.variation();
    if (variation?.by === 'palette') this.setVariation(withRamp(variation, ramp));
  }

  protected flipLink(): void {
    this.changed.emit(withLinkFlipped(this.recipe()));
  }

  protected flip(part: StylePart): void {
    const next = withPartFlipped(this.recipe(), part);
    if (next) this.changed.emit(next);
  }

  protected add(part: ColourPart): void {
    this.added.emit({ recipe: withColour(this.recipe(), part), field: `vary:${part}` });
  }

  protected labelOf(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected addNumber(channel: ChannelId): void {
    this.added.emit({ recipe: withNumber(this.recipe(), channel), field: `vary:${channel}` });
  }

  protected setNumber(value: WayValue): void {
    this.changed.emit(withNumber(this.recipe(), this.channel(), value as unknown as NumberVariation));
  }

  protected removeNumber(): void {
    this.changed.emit(withoutNumber(this.recipe(), this.channel()));
    this.done.emit();
  }

  protected setVariation(value: WayValue): void {
    const first = this.palettes()[0];
    const isEmpty = value.by === 'palette' && value['id'] === '';
    this.problem.set(isEmpty && !first ? 'The library has no palette yet. Make one there first.' : null);
    if (isEmpty) return first && this.setVariation({ ...value, id: first.id });
    this.changed.emit(withColour(this.recipe(), this.part(), value as unknown as ColourVariation));
  }

  protected setColours(list: readonly ListedColour[]): void {
    const variation = this.variation();
    if (variation?.by === 'colours') this.setVariation({ ...variation, colours: list.map(({ colour }) => colour) });
  }

  protected removeVariation(): void {
    this.changed.emit(withoutColour(this.recipe(), this.part()));
    this.done.emit();
  }
}
