import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { CopyPresets, PresetItem, Scene } from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';

/** How long copies take to come or go, where nothing was said. */
const USUAL_LENGTH = '10f';
const MOST_WEIGHT = 1_000;

/** The presets by which copies come in or go out, with how often each comes, and how long they take. */
@Component({
  selector: 'wx-copy-presets',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ValueField],
  template: `
    <strong>{{ side() === 'in' ? 'In by' : 'Out by' }}, with how often each comes</strong>
    <ul class="chances">
      @for (chance of chances(); track chance.id) {
        <li>
          <span>{{ chance.name }}</span><input
            class="text-field mono weight"
            inputmode="decimal"
            [attr.aria-label]="'How often ' + chance.name + ' comes'"
            [value]="chance.weight"
            (change)="setChance(chance.id, $any($event.target).value)"
          />
        </li>
      }
    </ul>
    <wx-value-field
      label="Each lasts"
      [value]="value()?.length ?? ''"
      [rate]="scene().rate"
      [least]="1"
      [check]="check()"
      (changed)="setLength($event)"
    />
    @if (problem(); as sentence) {
      <p class="problem" role="alert">{{ sentence }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
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
    .problem {
      color: var(--rose);
    }
  `,
})
export class CopyPresetsField {
  readonly side = input.required<'in' | 'out'>();
  readonly value = input.required<CopyPresets | undefined>();
  readonly items = input.required<readonly PresetItem[]>();
  readonly scene = input.required<Scene>();
  readonly changed = output<CopyPresets>();

  protected readonly problem = signal<string | null>(null);
  protected readonly check = computed(() => timeCheck(this.scene().rate));
  /** Presets that could bring copies in or out; 0 is never. */
  protected readonly chances = computed(() => {
    const phase = this.side() === 'in' ? 'entrance' : 'exit';
    const weights = new Map(this.value()?.presets.map(({ id, weight }) => [id, weight]));
    return this.items()
      .filter(({ body }) => body.phase === phase)
      .map(({ id, name }) => ({ id, name, weight: weights.get(id) ?? 0 }));
  });

  protected setChance(id: string, typed: string): void {
    const text = typed.trim();
    const weight = Number(text.replace(',', '.'));
    if (text === '' || !(weight >= 0 && weight <= MOST_WEIGHT))
      return this.problem.set('Write how often it comes, such as 2; 0 is never.');
    const before = this.value()?.presets ?? [];
    const others = before.filter((one) => one.id !== id);
    const standing = before.find((one) => one.id === id);
    const presets = weight > 0 ? [...others, { ...standing, id, weight }] : others;
    if (presets.length === 0) return this.problem.set('One of them must come: set another one above 0 first.');
    this.problem.set(null);
    this.changed.emit({ presets, length: this.value()?.length ?? USUAL_LENGTH });
  }

  protected setLength(length: string): void {
    const value = this.value();
    if (value) this.changed.emit({ ...value, length });
  }
}
