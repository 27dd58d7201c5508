import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { LAYER_KINDS, pickLayers, type LayerKind, type Pick, type Scene } from '@wexikine/core';

interface Counted {
  readonly text: string;
  readonly count: number;
}

type Rule = Extract<Pick, { by: 'rule' }>;

function count(values: readonly string[]): Counted[] {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].map(([text, number]) => ({ text, count: number })).sort((a, b) => b.count - a.count);
}

/** Who takes part: by tag, name pattern and kind together, or the layers that are ticked in the run sheet. */
@Component({
  selector: 'wx-pick-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <strong>Which layers</strong>
    <div class="field-label" role="group" aria-label="Tag">
      Tagged
      <div class="tags">
        @for (tag of tags(); track tag.text) {
          <button
            type="button"
            class="chip"
            [class.on]="rule()?.tag === tag.text"
            [attr.aria-pressed]="rule()?.tag === tag.text"
            (click)="setTag(tag.text)"
          >
            {{ tag.text }} {{ tag.count }}
          </button>
        } @empty {
          <span>No layer has a tag.</span>
        }
      </div>
    </div>
    <label class="field-label">
      Named (* stands for any text)
      <input
        class="text-field"
        type="text"
        placeholder="Star *"
        maxlength="200"
        [value]="rule()?.name ?? ''"
        (input)="setName($event)"
      />
    </label>
    <label class="field-label">
      Kind
      <select class="text-field" (change)="setKind($event)">
        <option value="" [selected]="rule()?.kind === undefined">any</option>
        @for (kind of kinds; track kind) {
          <option [value]="kind" [selected]="rule()?.kind === kind">{{ kind }}</option>
        }
      </select>
    </label>
    <p class="quiet-text">{{ summary() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      width: 320px;
    }
    .tags {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      font-weight: 400;
    }
  `,
})
export class PickEditor {
  readonly scene = input.required<Scene>();
  readonly pick = input.required<Pick>();
  readonly count = input.required<number>();
  readonly changed = output<Pick>();

  protected readonly kinds = LAYER_KINDS.filter((kind) => kind !== 'guide');
  protected readonly tags = computed(() => count(this.scene().layers.flatMap(({ tags }) => tags)).slice(0, 40));
  protected readonly rule = computed((): Rule | null => {
    const pick = this.pick();
    return pick.by === 'rule' ? pick : null;
  });

  protected readonly summary = computed(() => {
    const caught = pickLayers(this.scene(), this.pick()).length;
    const out = caught - this.count();
    const taking = this.count() === 1 ? '1 layer takes part.' : `${this.count()} layers take part.`;
    const skipped = out > 0 ? ` ${out} locked or hidden stay out.` : '';
    return this.pick().by === 'layers' ? `Ticked in the run sheet: ${taking}${skipped}` : taking + skipped;
  });

  protected setTag(tag: string): void {
    const { tag: standing, ...rest } = this.rule() ?? { by: 'rule' as const };
    this.changed.emit(standing === tag ? { ...rest } : { ...rest, tag });
  }

  protected setName(event: Event): void {
    const name = (event.target as HTMLInputElement).value;
    const { name: _standing, ...rest } = this.rule() ?? { by: 'rule' as const };
    this.changed.emit(name.trim() === '' ? { ...rest } : { ...rest, name });
  }

  protected setKind(event: Event): void {
    const kind = (event.target as HTMLSelectElement).value;
    const { kind: _standing, ...rest } = this.rule() ?? { by: 'rule' as const };
    this.changed.emit(kind === '' ? { ...rest } : { ...rest, kind: kind as LayerKind });
  }
}
