import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  channelOf,
  rigChannels,
  type ChannelId,
  type RigItem,
  type RigRecipe,
  type Scene,
  type SentenceField,
  type Shelf,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';
import { ItemPicture } from '../../library/item-picture';
import { createSearch } from '../../library/search';

/** The fields of a rig's sentence: which rig, on which channels, who plays its parts, and how much later each. */
@Component({
  selector: 'wx-rig-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ItemPicture, ValueField],
  template: `
    @switch (kind()) {
      @case ('rig') {
        <input
          class="text-field"
          type="search"
          aria-label="Search rigs"
          placeholder="settle, follow, sway…"
          [value]="query()"
          (input)="query.set($any($event.target).value)"
          (keydown.enter)="takeFirst($event)"
        />
        <div class="choices list">
          @for (item of found(); track item.id) {
            <button
              class="choice rig"
              type="button"
              [class.on]="item.id === recipe().rig.id"
              [attr.aria-pressed]="item.id === recipe().rig.id"
              (click)="chosen.emit(item)"
              (mouseenter)="hovered.set(item.id)"
              (mouseleave)="hovered.set(null)"
            >
              <wx-item-picture [item]="item" [playing]="hovered() === item.id" />
              <span
                >{{ item.name }}<small>{{ firstSentence(item.note) }}</small></span
              >
            </button>
          } @empty {
            <p class="quiet-text">No rig is like “{{ query() }}”. Try a shorter word.</p>
          }
        </div>
      }
      @case ('channels') {
        <strong>Which channels it drives</strong>
        <div class="chips" role="group" aria-label="Channels">
          @for (channel of channels(); track channel) {
            <button
              class="chip"
              type="button"
              [class.on]="isDriven(channel)"
              [attr.aria-pressed]="isDriven(channel)"
              (click)="flip(channel)"
            >
              {{ label(channel) }}
            </button>
          }
        </div>
        <p class="quiet-text">The rig has formulas for these. At least one stays.</p>
      }
      @case ('later') {
        <wx-value-field
          label="Each one later by"
          [value]="recipe().later"
          [rate]="scene().rate"
          [check]="check()"
          (changed)="set({ later: $event })"
        />
        <p class="quiet-text">From one place in the order to the next. 0f lets all of them answer at once.</p>
      }
      @case ('role') {
        <label class="field-label"
          >{{ role() }}
          <select class="text-field" (change)="setRole($event)">
            @for (layer of scene().layers; track layer.id) {
              <option [value]="layer.id" [selected]="layer.id === recipe().roles?.[role()]">{{ layer.name }}</option>
            }
          </select>
        </label>
        <p class="quiet-text">{{ roleNote() }}. It keeps its own keys.</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 340px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .rig {
      align-items: center;
      width: 100%;
    }
    wx-item-picture {
      width: 84px;
      flex: none;
      border-radius: 5px;
    }
    .rig span {
      font-weight: 600;
      min-width: 0;
    }
    .rig small {
      font-weight: 400;
      font-size: 12px;
      line-height: 1.3;
    }
    .field-label {
      text-transform: none;
    }
  `,
})
export class RigFields {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<RigRecipe>();
  readonly rigs = input.required<readonly RigItem[]>();
  readonly shelf = input.required<Shelf>();
  readonly scene = input.required<Scene>();
  readonly changed = output<RigRecipe>();
  readonly chosen = output<RigItem>();

  protected readonly query = signal('');
  protected readonly hovered = signal<string | null>(null);
  private readonly search = computed(() => createSearch(this.rigs()));
  protected readonly found = computed(() => this.search()(this.query()));
  protected readonly check = computed(() => timeCheck(this.scene().rate));
  protected readonly kind = computed(() => (this.field().startsWith('role:') ? 'role' : this.field()));
  protected readonly role = computed(() => this.field().slice('role:'.length));

  private readonly body = computed(() => {
    const item = this.shelf().items.get(this.recipe().rig.id);
    return item?.kind === 'rig' ? item.body : null;
  });
  protected readonly channels = computed(() => {
    const body = this.body();
    return body ? rigChannels(body) : [];
  });
  protected readonly roleNote = computed(() => {
    const note = this.body()?.roles.find(({ name }) => name === this.role())?.note ?? 'A layer that the rig reads';
    return note.charAt(0).toUpperCase() + note.slice(1);
  });

  protected label(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected firstSentence(note: string): string {
    return note.split('. ')[0];
  }

  protected isDriven(channel: ChannelId): boolean {
    return this.recipe().channels?.includes(channel) ?? true;
  }

  protected flip(channel: ChannelId): void {
    const driven = this.channels().filter((id) => this.isDriven(id) !== (id === channel));
    if (driven.length === 0) return;
    const { channels: _standing, ...rest } = this.recipe();
    this.changed.emit(driven.length === this.channels().length ? rest : { ...rest, channels: [...driven] });
  }

  protected set(part: Partial<RigRecipe>): void {
    this.changed.emit({ ...this.recipe(), ...part });
  }

  protected setRole(event: Event): void {
    this.set({ roles: { ...this.recipe().roles, [this.role()]: (event.target as HTMLSelectElement).value } });
  }

  protected takeFirst(event: Event): void {
    // The field has the focus from here on, and is not to be pressed by the same key.
    event.preventDefault();
    const [item] = this.found();
    if (item) this.chosen.emit(item);
  }
}
