import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { GuideService } from './guide.service';
import { GUIDE_STEPS, type GuideState } from './guide-steps';

/** The guided first batch: one short step at a time, in the page itself. It can be left at any time. */
@Component({
  selector: 'wx-guide-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section role="region" aria-label="Your first batch" aria-live="polite">
      @if (step(); as now) {
        <p class="count">Your first batch, step {{ number() + 1 }} of {{ steps.length }}</p>
        <h2>{{ now.title }}</h2>
        <p>{{ now.text }}</p>
        <div class="acts">
          <span class="dots" aria-hidden="true">
            @for (dot of steps; track dot.title; let i = $index) {
              <i [class.on]="i <= number()"></i>
            }
          </span>
          <button class="wx-button quiet" type="button" (click)="leave()">Leave the guide</button>
          <button class="wx-button" type="button" (click)="next()">Skip this step</button>
        </div>
      } @else {
        <h2>That was a batch</h2>
        <p>
          Twelve layers are animated, and you can change your mind: open “Runs”, press “Change”, and the sentence is
          back. Everything else is in Help, the question mark on top.
        </p>
        <div class="acts">
          <button class="wx-button main" type="button" (click)="leave()">Done</button>
        </div>
      }
    </section>
  `,
  styles: `
    :host {
      position: absolute;
      z-index: 5;
      left: 16px;
      bottom: 76px;
      width: 380px;
    }
    section {
      padding: 14px 16px 12px;
      border: 1px solid var(--pine);
      border-left-width: 5px;
      border-radius: 10px;
      background: var(--paper-high);
      box-shadow: var(--shadow);
    }
    .count {
      font-size: 12px;
      color: var(--ink-soft);
    }
    h2 {
      margin: 2px 0 4px;
      font: 650 17px/1.3 var(--font-head);
    }
    .acts {
      display: flex;
      align-items: center;
      justify-content: flex-end;
      gap: 6px;
      margin-top: 10px;
    }
    .dots {
      display: flex;
      gap: 5px;
      margin-right: auto;
    }
    i {
      width: 8px;
      height: 8px;
      border-radius: 4px;
      background: var(--line-strong);
    }
    i.on {
      background: var(--pine);
    }
  `,
})
export class GuideCard {
  readonly state = input.required<GuideState>();
  /** What to look at now, as a selector; null for nothing. */
  readonly lookedAt = output<string | null>();
  readonly left = output();

  protected readonly steps = GUIDE_STEPS;
  protected readonly number = signal(0);
  protected readonly step = computed(() => GUIDE_STEPS[this.number()]);
  private readonly guide = inject(GuideService);
  private before: GuideState | null = null;

  constructor() {
    effect(() => {
      const [now, step] = [this.state(), this.step()];
      this.before ??= now;
      if (step?.isDone(now, this.before)) this.next();
    });
    effect(() => this.lookedAt.emit(this.step()?.at ?? null));
  }

  protected next(): void {
    this.before = null;
    this.number.update((number) => number + 1);
    if (this.number() >= GUIDE_STEPS.length) this.guide.finish();
  }

  protected leave(): void {
    this.guide.finish();
    this.lookedAt.emit(null);
    this.left.emit();
  }
}
