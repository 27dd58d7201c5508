import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal } from '@angular/core';
import type { Rate } from '@wexikine/core';
import { readLiteral, stepText } from './literal';
import { Scrub } from './scrub';

let made = 0;

/**
 * A field for a value with a unit. It can be typed, stepped with the arrow keys (Shift: ten) and scrubbed by dragging
 * its label. What `check` refuses is kept in the field with a sentence below, and is not given on.
 */
@Component({
  selector: 'wx-value-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Scrub],
  template: `
    <label
      [class.visually-hidden]="isLabelHidden()"
      [for]="id"
      [wxScrub]="canStep()"
      (scrubStart)="hold()"
      (scrubbed)="scrub($event)"
      [title]="canStep() ? 'Drag to change' : ''"
      >{{ label() }}</label
    >
    <input
      class="text-field mono"
      type="text"
      autocomplete="off"
      spellcheck="false"
      [id]="id"
      [value]="shown()"
      [attr.aria-invalid]="problem() !== null"
      [attr.aria-describedby]="problem() === null ? null : id + '-problem'"
      (input)="type($event)"
      (keydown)="key($event)"
      (blur)="settle()"
    />
    @if (hint(); as text) {
      <small>{{ text }}</small>
    }
    @if (problem(); as text) {
      <small class="problem" role="alert" [id]="id + '-problem'">{{ text }}</small>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      min-width: 0;
    }
    label {
      font-size: 12px;
      font-weight: 550;
      color: var(--ink-soft);
      justify-self: start;
    }
    small {
      color: var(--ink-soft);
    }
    small.problem {
      color: var(--rose);
    }
    input {
      width: 100%;
    }
  `,
})
export class ValueField {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  readonly rate = input.required<Rate>();
  /** Least number when stepping; typing may go beyond. */
  readonly least = input(-Infinity);
  readonly hint = input<string | null>(null);
  /** The label is only read out, where the place says what the field is. */
  readonly isLabelHidden = input(false);
  /** Gives what is wrong with a text, or null. */
  readonly check = input<(text: string) => string | null>(() => null);
  readonly changed = output<string>();

  protected readonly id = `value-field-${++made}`;
  protected readonly shown = signal('');
  protected readonly problem = computed(() => this.check()(this.shown()));
  protected readonly canStep = computed(() => readLiteral(this.shown(), this.rate()) !== null);
  private held = '';

  constructor() {
    effect(() => this.shown.set(this.value()));
  }

  protected type(event: Event): void {
    this.give((event.target as HTMLInputElement).value);
  }

  protected key(event: KeyboardEvent): void {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    const steps = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1);
    this.give(stepText(this.shown(), steps, this.rate(), this.least()));
  }

  protected hold(): void {
    this.held = this.shown();
  }

  protected scrub(steps: number): void {
    this.give(stepText(this.held, steps, this.rate(), this.least()));
  }

  /** Leaving the field with a refused text brings back the value that stands. */
  protected settle(): void {
    if (this.problem() !== null) this.shown.set(this.value());
  }

  private give(text: string): void {
    this.shown.set(text);
    if (this.check()(text) === null) this.changed.emit(text);
  }
}
