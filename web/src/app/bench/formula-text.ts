import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { tokensOf } from './formula-tokens';

/** A formula that is only shown, in its colours. */
@Component({
  selector: 'wx-formula-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@for (token of tokens(); track $index) {
    <span [class]="'token-' + token.kind">{{ token.text }}</span>
  }`,
  styles: `
    :host {
      font: 13px/1.45 var(--font-mono);
      letter-spacing: -0.02em;
      white-space: pre-wrap;
      overflow-wrap: anywhere;
    }
  `,
})
export class FormulaText {
  readonly text = input.required<string>();
  protected readonly tokens = computed(() => tokensOf(this.text()));
}
