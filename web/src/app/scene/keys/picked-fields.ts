import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { valueWords } from './picks';
import { KeyEdits } from './key-edits';

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
      Value
      <input
        class="text-field mono"
        aria-label="Set values to, or change by"
        [placeholder]="valueText()"
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
    .problem {
      color: var(--rose);
    }
  `,
})
export class PickedFields {
  private readonly edits = inject(KeyEdits);
  protected readonly problem = signal<string | null>(null);
  private readonly picks = toSignal(this.edits.picks$, { requireSync: true });
  /** The value that all have, or that they differ. */
  protected readonly valueText = computed(() => valueWords(this.edits.scene, this.picks()));

  protected type(event: Event, what: 'time' | 'value'): void {
    const field = event.target as HTMLInputElement;
    const text = field.value.trim();
    if (text === '') return;
    const problem = what === 'time' ? this.edits.typeTime(text) : this.edits.typeValue(text);
    this.problem.set(problem);
    if (problem === null) field.value = '';
  }
}
