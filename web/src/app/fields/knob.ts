import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { Scrub } from './scrub';

const TURN = 270;
const RADIUS = 19;
const MIDDLE = 24;
/** Steps from one end to the other while it is dragged. */
const STEPS = 60;
const COARSE = 10;

function pointAt(share: number, radius: number): string {
  const angle = ((share * TURN - 225) * Math.PI) / 180;
  return `${(MIDDLE + Math.cos(angle) * radius).toFixed(2)} ${(MIDDLE + Math.sin(angle) * radius).toFixed(2)}`;
}

function arc(from: number, to: number): string {
  return `M${pointAt(from, RADIUS)}A${RADIUS} ${RADIUS} 0 ${(to - from) * TURN > 180 ? 1 : 0} 1 ${pointAt(to, RADIUS)}`;
}

/** A dial to be turned by dragging sideways, by the wheel's steps of the arrow keys, or to its ends by Home and End. */
@Component({
  selector: 'wx-knob',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Scrub],
  template: `
    <svg
      viewBox="0 0 48 48"
      role="slider"
      tabindex="0"
      [attr.aria-label]="label()"
      [attr.aria-valuemin]="from()"
      [attr.aria-valuemax]="to()"
      [attr.aria-valuenow]="value()"
      [attr.aria-valuetext]="words()"
      [wxScrub]="true"
      (scrubStart)="held = value()"
      (scrubbed)="scrub($event)"
      (keydown)="key($event)"
    >
      <path class="way" [attr.d]="whole" />
      @if (share() > 0.002) {
        <path class="set" [attr.d]="setArc()" />
      }
      <circle cx="24" cy="24" r="10" />
      <path class="hand" [attr.d]="hand()" />
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 48px;
      height: 48px;
      border-radius: 50%;
    }
    path {
      fill: none;
      stroke-width: 5;
      stroke-linecap: round;
    }
    .way {
      stroke: var(--line-strong);
      opacity: 0.55;
    }
    .set {
      stroke: var(--pine);
    }
    circle {
      fill: var(--paper-high);
      stroke: var(--line-strong);
    }
    .hand {
      stroke: var(--ink);
      stroke-width: 2.4;
    }
  `,
})
export class Knob {
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly from = input.required<number>();
  readonly to = input.required<number>();
  /** One step of an arrow key; a sixtieth of the way without it. */
  readonly step = input<number | null>(null);
  readonly words = input.required<string>();
  readonly turned = output<number>();
  protected held = 0;
  /** The value as last given on: keys can follow each other faster than the screen is drawn. */
  private readonly latest = linkedSignal(() => this.value());
  protected readonly whole = arc(0, 1);
  protected readonly share = computed(() => {
    const way = this.to() - this.from();
    return way === 0 ? 0 : Math.min(1, Math.max(0, (this.value() - this.from()) / way));
  });
  protected readonly setArc = computed(() => arc(0, this.share()));
  protected readonly hand = computed(() => `M${pointAt(this.share(), 4)}L${pointAt(this.share(), 9)}`);
  private readonly oneStep = computed(() => this.step() ?? (this.to() - this.from()) / STEPS);

  protected scrub(steps: number): void {
    this.give(this.held + (steps * (this.to() - this.from())) / STEPS);
  }

  protected key(event: KeyboardEvent): void {
    const factor = event.shiftKey ? COARSE : event.altKey ? 1 / COARSE : 1;
    const ways: Readonly<Record<string, number>> = {
      ArrowUp: this.latest() + this.oneStep() * factor,
      ArrowRight: this.latest() + this.oneStep() * factor,
      ArrowDown: this.latest() - this.oneStep() * factor,
      ArrowLeft: this.latest() - this.oneStep() * factor,
      Home: this.from(),
      End: this.to(),
    };
    if (!(event.key in ways)) return;
    event.preventDefault();
    event.stopPropagation();
    this.give(ways[event.key]);
  }

  private give(value: number): void {
    const step = this.step();
    const kept = step === null ? value : Math.round(value / step) * step;
    const next = Math.min(this.to(), Math.max(this.from(), Number(kept.toFixed(6))));
    this.latest.set(next);
    this.turned.emit(next);
  }
}
