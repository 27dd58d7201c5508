import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { ClearRecipe, KeyRule, Scene } from '@wexikine/core';
import { KeyRuleForm } from './key-rule-form';

/** Which keys go: by channel, phase, time and run, all conditions together. */
@Component({
  selector: 'wx-clear-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [KeyRuleForm],
  template: `
    <strong>Which keys go</strong>
    <p class="quiet-text">Whatever is chosen must hold together; with nothing chosen, every key goes.</p>
    <wx-key-rule-form [rule]="rule()" [scene]="scene()" [isWhole]="false" (changed)="set($event)" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 340px;
    }
  `,
})
export class ClearEditor {
  readonly recipe = input.required<ClearRecipe>();
  readonly scene = input.required<Scene>();
  readonly changed = output<ClearRecipe>();

  /** What of the recipe says which keys. */
  protected readonly rule = computed((): Partial<KeyRule> => {
    const { channels, phases, run, from, to } = this.recipe();
    const given = Object.entries({ channels, phases, run, from, to }).filter(([, value]) => value !== undefined);
    return Object.fromEntries(given) as Partial<KeyRule>;
  });

  protected set({ channels, phases, run, from, to }: Partial<KeyRule>): void {
    const { operation, pick, order, seed } = this.recipe();
    const given = Object.entries({ channels, phases, run, from, to }).filter(([, value]) => value !== undefined);
    this.changed.emit({ operation, pick, order, seed, ...Object.fromEntries(given) } as ClearRecipe);
  }
}
