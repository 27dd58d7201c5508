import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Order, Scene } from '@wexikine/core';
import { ValueField } from '../../fields/value-field';
import { ChoiceEditor } from './choice-editor';
import type { Choice } from './choices';
import { Icon } from '../../icons/icon';

const CHOICES: readonly Choice[] = [
  { value: 'layered', label: 'As layered', note: 'back to front' },
  { value: 'name', label: 'By name', note: '2 comes before 10' },
  { value: 'across', label: 'Across', note: 'left to right' },
  { value: 'down', label: 'Down', note: 'top to bottom' },
  { value: 'out-from', label: 'Out from a point', note: 'the nearest first' },
  { value: 'shuffled', label: 'Shuffled', note: 'the same for the same seed' },
];

const MOST_SEED = 10_000;

function percentCheck(text: string): string | null {
  return /^-?\d+(\.\d+)?\s*%$/.test(text.trim()) ? null : 'Give a percentage such as 50%.';
}

/** In which order the layers follow each other. */
@Component({
  selector: 'wx-order-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, ValueField, Icon],
  template: `
    <wx-choice-editor label="In which order" [choices]="choices" [value]="order().by" (chosen)="choose($event)" />
    @if (order().by === 'out-from') {
      <div class="two">
        <wx-value-field
          label="From the left"
          [value]="share('x')"
          [rate]="scene().rate"
          [check]="percent"
          (changed)="setPoint('x', $event)"
        />
        <wx-value-field
          label="From the top"
          [value]="share('y')"
          [rate]="scene().rate"
          [check]="percent"
          (changed)="setPoint('y', $event)"
        />
      </div>
    }
    @if (order().by === 'shuffled') {
      <button class="wx-button" type="button" (click)="reshuffle()">
        <wx-icon name="casino" />Shuffle again (seed {{ seed() }})
      </button>
    }
    <label class="choice"
      ><input type="checkbox" [checked]="order().reversed === true" (change)="reverse($event)" /><span
        >The other way round</span
      ></label
    >
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 260px;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class OrderEditor {
  readonly order = input.required<Order>();
  readonly scene = input.required<Scene>();
  readonly changed = output<Order>();
  protected readonly choices = CHOICES;
  protected readonly percent = percentCheck;

  protected choose(by: string): void {
    const reversed = this.order().reversed === true ? { reversed: true } : {};
    if (by === 'out-from') this.changed.emit({ by, x: 0.5, y: 0.5, ...reversed });
    else if (by === 'shuffled') this.changed.emit({ by, seed: 1, ...reversed });
    else this.changed.emit({ by: by as 'layered', ...reversed });
  }

  protected reverse(event: Event): void {
    const { reversed: _standing, ...rest } = this.order();
    this.changed.emit((event.target as HTMLInputElement).checked ? { ...rest, reversed: true } : (rest as Order));
  }

  protected share(axis: 'x' | 'y'): string {
    const order = this.order();
    return order.by === 'out-from' ? `${Math.round(order[axis] * 1000) / 10}%` : '';
  }

  protected setPoint(axis: 'x' | 'y', text: string): void {
    const order = this.order();
    if (order.by === 'out-from') this.changed.emit({ ...order, [axis]: Number.parseFloat(text) / 100 });
  }

  protected seed(): number {
    const order = this.order();
    return order.by === 'shuffled' ? order.seed : 0;
  }

  protected reshuffle(): void {
    const order = this.order();
    if (order.by === 'shuffled') this.changed.emit({ ...order, seed: (order.seed % MOST_SEED) + 1 });
  }
}
