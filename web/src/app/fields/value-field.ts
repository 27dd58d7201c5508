import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Rate } from '@wexikine/core';
import { enter } from './entry';
import { readLiteral, stepText } from './literal';
import { Scrub } from './scrub';

let made = 0;
/** Steps of an arrow key: with Shift coarse, with Alt fine. */
const COARSE = 10;
const FINE = 0.1;

/** How far an arrow key steps. */
export function stepsOfKey({ key, shiftKey, altKey }: KeyboardEvent): number {
  return (key === 'ArrowUp' ? 1 : -1) * (shiftKey ? COARSE : altKey ? FINE : 1);
}

/**
 * A field for a value with a unit. It can be typed (see `enter` for what), stepped with the arrow keys and scrubbed by
 * dragging its label. Entering it selects it. What `check` refuses is kept in the field with a sentence below,
 * and is not given on.
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
      [attr.cdkFocusInitial]="isFirst() ? '' : null"
      [attr.aria-invalid]="problem() !== null"
      [attr.aria-describedby]="problem() === null ? null : id + '-problem'"
      (focus)="begin($event)"
      (click)="click($event)"
      (input)="type($event)"
      (keydown)="key($event)"
      (blur)="settle()"
    />
    @if (problem(); as text) {
      <small class="problem" role="alert" [id]="id + '-problem'">{{ text }}</small>
    } @else if (result() ?? hint(); as text) {
      <small>{{ text }}</small>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      min-width: 0;
      align-content: start;
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
  /** Rate that times are read at; of no matter for other values. */
  readonly rate = input<Rate>({ num: 25, den: 1 });
  /** Least number when stepping; typing may go beyond. */
  readonly least = input(-Infinity);
  /** How many steps of its unit an arrow key goes. */
  readonly step = input(1);
  readonly hint = input<string | null>(null);
  /** The label is only read out, where the place says what the field is. */
  readonly isLabelHidden = input(false);
  /** The field that has the focus when the dialog around it opens. */
  readonly isFirst = input(false);
  /** Gives what is wrong with a text, or null. */
  readonly check = input<(text: string) => string | null>(() => null);
  /** Gives a value on when it is done with, not at every letter. */
  readonly isLazy = input(false);
  readonly changed = output<string>();

  protected readonly id = `value-field-${++made}`;
  /** What is being typed; null while nothing is. */
  private readonly typed = signal<string | null>(null);
  protected readonly shown = computed(() => this.typed() ?? this.value());
  private base: string | null = null;
  private isEntering = false;
  private readonly entered = computed(() => {
    const typed = this.typed();
    return typed === null ? null : enter(typed, this.base ?? this.value(), this.rate());
  });
  /** What the typing comes to. */
  private readonly text = computed(() => {
    const entered = this.entered();
    return entered?.ok === true ? entered.text : this.shown();
  });
  protected readonly problem = computed(() => {
    const entered = this.entered();
    return entered?.ok === false ? entered.message : this.check()(this.text());
  });
  /** Said where what was typed is not what it comes to. */
  protected readonly result = computed(() => {
    const typed = this.typed()?.trim().replace(/^=/, '').replace('−', '-');
    if (typed === undefined || typed === this.text() || !/^[+\-*/×÷]|\d\s*[-+*/×÷(]/.test(typed)) return null;
    const isLess = typed.startsWith('-');
    return `= ${this.text()}${isLess ? `; for ${typed.replace('-', '−')} itself write =${typed}` : ''}`;
  });
  protected readonly canStep = computed(() => readLiteral(this.text(), this.rate()) !== null);
  private held = '';

  /** Selects all, so that digits typed at once take its place; a plain number takes the unit that stands there. */
  protected begin(event: FocusEvent): void {
    const field = event.target as HTMLInputElement;
    this.base = this.value();
    field.select();
    // The click that brought the focus puts its caret after that.
    this.isEntering = true;
  }

  protected click(event: MouseEvent): void {
    const field = event.target as HTMLInputElement;
    if (this.isEntering && field.selectionStart === field.selectionEnd) field.select();
    this.isEntering = false;
  }

  protected type(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
    if (!this.isLazy()) this.give();
  }

  protected key(event: KeyboardEvent): void {
    if (event.key === 'Enter') return this.settle();
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    this.typed.set(stepText(this.text(), stepsOfKey(event) * this.step(), this.rate(), this.least()));
    if (!this.isLazy()) this.give();
  }

  protected hold(): void {
    this.held = this.text();
  }

  protected scrub(steps: number): void {
    this.typed.set(stepText(this.held, steps * this.step(), this.rate(), this.least()));
    this.give();
    this.typed.set(null);
  }

  /** What was typed counts from now on; a refused text gives way to the value that stands. */
  protected settle(): void {
    if (this.isLazy() && this.typed() !== null) this.give();
    this.typed.set(null);
    this.base = null;
    setTimeout(() => (this.base = this.value()));
  }

  private give(): void {
    if (this.problem() === null) this.changed.emit(this.text());
  }
}
