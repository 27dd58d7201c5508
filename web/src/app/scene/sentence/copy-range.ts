import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { MultiplyRecipe } from '@wexikine/core';
import { rangeText, readRange, type RangeUnit } from './range-text';

type Range = MultiplyRecipe['scale'];

/** What of copies has a range. */
export type CopyRangeKind = 'scale' | 'turn' | 'opacity';

const RANGES: Readonly<Record<CopyRangeKind, RangeUnit & { readonly label: string }>> = {
  scale: { label: 'Size of the copies', unit: ' %', factor: 100, least: 0, most: 10_000 },
  turn: { label: 'How copies are turned', unit: '°', factor: 1, least: -36_000, most: 36_000 },
  opacity: { label: 'Opacity of the copies', unit: ' %', factor: 100, least: 0, most: 100 },
};

/** A number of copies at first and at last, each between two that it is drawn from. */
@Component({
  selector: 'wx-copy-range',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <strong>{{ unit().label }}</strong>
    <div class="ranges">
      <span></span><span>from</span><span>to, by chance</span>
      @for (end of ends; track end.part) {
        <span>{{ end.label }}</span>
        <input
          class="text-field mono"
          [attr.aria-label]="end.label + ', from'"
          [value]="shown(value()[end.part][0])"
          (change)="set(end.part, 0, $any($event.target).value)"
        />
        <input
          class="text-field mono"
          [attr.aria-label]="end.label + ', to'"
          [value]="shown(value()[end.part][1])"
          (change)="set(end.part, 1, $any($event.target).value)"
        />
      }
    </div>
    <p class="quiet-text">Where both lines are alike, each copy keeps what is drawn for it.</p>
    @if (problem(); as sentence) {
      <p class="problem" role="alert">{{ sentence }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .ranges {
      display: grid;
      grid-template-columns: 70px 1fr 1fr;
      gap: 6px 8px;
      align-items: end;
      font-size: 13px;
    }
    .ranges > span {
      align-self: center;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class CopyRange {
  readonly kind = input.required<CopyRangeKind>();
  readonly value = input.required<Range>();
  readonly changed = output<Range>();

  protected readonly ends = [
    { part: 'begin', label: 'At first' },
    { part: 'end', label: 'At last' },
  ] as const;
  protected readonly unit = computed(() => RANGES[this.kind()]);
  protected readonly problem = signal<string | null>(null);

  protected shown(value: number): string {
    return rangeText(value, this.unit());
  }

  protected set(part: 'begin' | 'end', place: 0 | 1, text: string): void {
    const read = readRange(text, this.unit());
    if (!read.ok) return this.problem.set(read.problem);
    this.problem.set(null);
    const pair = this.value()[part].map((value, i) => (i === place ? read.value : value)) as [number, number];
    this.changed.emit({ ...this.value(), [part]: pair });
  }
}
