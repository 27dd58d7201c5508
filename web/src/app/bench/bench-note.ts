import { ChangeDetectionStrategy, Component, computed, input, signal, type OnDestroy } from '@angular/core';
import type { BenchSave } from './bench.store';

const TICK_MS = 1_000;

function ago(milliseconds: number): string {
  const seconds = Math.max(0, Math.round(milliseconds / 1_000));
  if (seconds < 2) return 'just now';
  if (seconds < 90) return `${seconds} s ago`;
  return `${Math.round(seconds / 60)} min ago`;
}

/** How the draft stands: kept and when, being kept, or why it is not. */
@Component({
  selector: 'wx-bench-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span role="status" [class.problem]="isProblem()">{{ words() }}</span>`,
  styles: `
    span {
      color: var(--ink-soft);
      white-space: nowrap;
      padding-right: 6px;
    }
    span.problem {
      color: var(--rose);
      white-space: normal;
    }
  `,
})
export class BenchNote implements OnDestroy {
  readonly save = input.required<BenchSave>();

  private readonly now = signal(Date.now());
  private readonly timer = setInterval(() => this.now.set(Date.now()), TICK_MS);
  protected readonly isProblem = computed(() => ['failed', 'conflict'].includes(this.save().type));
  protected readonly words = computed(() => {
    const save = this.save();
    switch (save.type) {
      case 'clean':
        return 'as published';
      case 'kept':
        return `draft kept ${ago(this.now() - save.at)}`;
      case 'waiting':
      case 'saving':
        return 'keeping the draft…';
      case 'failed':
      case 'conflict':
        return `not kept: ${save.message}`;
    }
  });

  ngOnDestroy(): void {
    clearInterval(this.timer);
  }
}
