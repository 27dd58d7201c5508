import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { operationFor, PHASES, type PresetItem, type PresetRecipe } from '@wexikine/core';
import { GhostTrail } from '../../library/ghost-trail';
import { createSearch } from '../../library/search';

/** Presets that are drawn at once; with more one searches. */
const MOST_SHOWN = 60;

/** The library as a searchable list with ghost trails; those of the sentence's phase come first. */
@Component({
  selector: 'wx-preset-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [GhostTrail],
  template: `
    <input
      class="text-field"
      type="search"
      aria-label="Search presets"
      placeholder="settle, fade, edge…"
      [value]="query()"
      (input)="type($event)"
      (keydown.enter)="takeFirst($event)"
    />
    <div class="list">
      @for (group of groups(); track group.phase) {
        <div class="group">
          <strong class="phase">{{ group.phase }}</strong>
          <div class="choices">
            @for (item of group.items; track item.id) {
              <button
                class="choice"
                type="button"
                [class.on]="item.id === recipe().preset.id"
                [attr.aria-pressed]="item.id === recipe().preset.id"
                (click)="chosen.emit(item)"
                (mouseenter)="hovered.set(item.id)"
                (mouseleave)="hovered.set(null)"
              >
                <wx-ghost-trail [item]="item" [playing]="hovered() === item.id" />
                <span
                  >{{ item.name }}<small>{{ item.note }}</small></span
                >
              </button>
            }
          </div>
        </div>
      } @empty {
        <p class="quiet-text">No preset is like “{{ query() }}”. Try a shorter word.</p>
      }
      @if (hidden() > 0) {
        <p class="quiet-text">{{ hidden() }} more; type to narrow them down.</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 360px;
    }
    .phase {
      display: block;
      font-size: 12px;
      color: var(--ink-soft);
      padding: 0 8px 4px;
      text-transform: capitalize;
    }
    .choice {
      align-items: center;
      width: 100%;
    }
    wx-ghost-trail {
      width: 84px;
      flex: none;
      border-radius: 5px;
    }
    .choice span {
      font-weight: 600;
      min-width: 0;
    }
    .choice small {
      font-weight: 400;
      font-size: 12px;
      line-height: 1.3;
    }
  `,
})
export class PresetEditor {
  readonly items = input.required<readonly PresetItem[]>();
  readonly recipe = input.required<PresetRecipe>();
  readonly chosen = output<PresetItem>();

  protected readonly query = signal('');
  protected readonly hovered = signal<string | null>(null);
  private readonly search = computed(() => createSearch(this.items()));
  private readonly operation = computed(() => this.recipe().operation);

  protected readonly groups = computed(() => {
    const wanted = this.operation();
    const isWanted = ({ body }: PresetItem): boolean => operationFor(body.phase) === wanted;
    const all = this.search()(this.query());
    const found = [...all.filter(isWanted), ...all.filter((item) => !isWanted(item))].slice(0, MOST_SHOWN);
    const phases = [...PHASES].sort((a, b) => Number(operationFor(b) === wanted) - Number(operationFor(a) === wanted));
    return phases
      .map((phase) => ({ phase, items: found.filter(({ body }) => body.phase === phase) }))
      .filter(({ items }) => items.length > 0);
  });

  protected readonly hidden = computed(() => Math.max(0, this.search()(this.query()).length - MOST_SHOWN));

  protected type(event: Event): void {
    this.query.set((event.target as HTMLInputElement).value);
  }

  protected takeFirst(event: Event): void {
    // The field has the focus from here on, and is not to be pressed by the same key.
    event.preventDefault();
    const item = this.groups()[0]?.items[0];
    if (item) this.chosen.emit(item);
  }
}
