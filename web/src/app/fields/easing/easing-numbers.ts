import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { easingFromStrengths, type Easing } from '@wexikine/core';
import { NumberField } from '../number-field';

type Of<T extends Easing['type']> = Extract<Easing, { type: T }>;
const JUMPS = ['end', 'start', 'none', 'both'] as const;

function rounded(value: number): number {
  return Number(value.toFixed(4));
}

/** A Bézier after one of its strengths was set: a share of the segment; both ends become flat. */
export function withStrength({ x1, x2 }: Of<'bezier'>, which: 'departure' | 'arrival', strength: number): Easing {
  return which === 'departure'
    ? easingFromStrengths(rounded(strength), rounded(1 - x2))
    : easingFromStrengths(rounded(x1), rounded(strength));
}

/** Steps that jump elsewhere: without a jump at either end there are at least two. */
export function withJump(steps: Of<'steps'>, jump: (typeof JUMPS)[number]): Easing {
  return { ...steps, jump, count: jump === 'none' ? Math.max(2, steps.count) : steps.count };
}

let made = 0;

/** The numbers of an easing that has some: a Bézier, a spring, steps, free handles. */
@Component({
  selector: 'wx-easing-numbers',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberField],
  templateUrl: './easing-numbers.html',
  styleUrl: './easing-numbers.scss',
})
export class EasingNumbers {
  readonly easing = input.required<Easing>();
  readonly changed = output<Easing>();
  protected readonly id = `easing-numbers-${++made}`;
  protected readonly jumps = JUMPS;

  protected setStrength(bezier: Of<'bezier'>, which: 'departure' | 'arrival', event: Event): void {
    this.changed.emit(withStrength(bezier, which, Number((event.target as HTMLInputElement).value)));
  }

  protected slideDamping(spring: Of<'spring'>, event: Event): void {
    this.changed.emit({ ...spring, damping: Number((event.target as HTMLInputElement).value) });
  }

  protected setJump(steps: Of<'steps'>, event: Event): void {
    this.changed.emit(withJump(steps, (event.target as HTMLSelectElement).value as (typeof JUMPS)[number]));
  }

  protected setHandle(
    handles: Of<'handles'>,
    side: 'leave' | 'arrive',
    part: { readonly time?: number; readonly value?: number },
  ): void {
    this.changed.emit({ ...handles, [side]: { ...handles[side], ...part } });
  }
}
