import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { valueWords } from './picks';
import { KeyEdits, type ValueOf } from './key-edits';

/** Time and value of all picked keys, typed: to, or by. */
@Component({
  selector: 'wx-picked-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label>
      Time
      <input class="text-field mono" aria-label="Move by, or to" placeholder="+8f" (change)="type($event, 'time')" />
    </label>
    <label>
      <select class="text-field" aria-label="A typed value sets" (change)="of.set($any($event.target).value)">
        <option value="keys" [selected]="of() === 'keys'">Value</option>
        <option value="rest" [selected]="of() === 'rest'">Rest pose</option>
      </select>
      <input
        class="text-field mono"
        aria-label="Set values to, or change by"
        [placeholder]="valueText()"
        [class.rest]="of() === 'rest'"
        (change)="type($event, 'value')"
      />
    </label>
    @if (problem(); as text) {
      <span class="problem" role="alert">{{ text }}</span>
    }
  `,
  styles: `
    :host,
    label {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    input {
      width: 74px;
      height: 27px;
    }
    select {
      width: auto;
      height: 27px;
      padding: 0 2px;
    }
    input.rest {
      border-color: var(--pine);
      border-style: dashed;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class PickedFields {
  private readonly edits = inject(KeyEdits);
  /** Whether a typed value sets the picked keys, or where their layers rest. */
  protected readonly of = signal<ValueOf>('keys');
  protected readonly problem = signal<string | null>(null);
  private readonly picks = toSignal(this.edits.picks$, { requireSync: true });
  /** The value that all have, or that they differ. */
  protected readonly valueText = computed(() => valueWords(this.edits.keyScene, this.picks(), this.of()));

  protected type(event: Event, what: 'time' | 'value'): void {
    const field = event.target as HTMLInputElement;
    const text = field.value.trim();
    if (text === '') return;
    const problem = what === 'time' ? this.edits.typeTime(text) : this.edits.typeValue(text, this.of());
    this.problem.set(problem);
    if (problem === null) field.value = '';
  }
}
