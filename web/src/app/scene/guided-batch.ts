import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  output,
  type OnDestroy,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { GuideCard } from '../guide/guide-card';
import type { GuideState } from '../guide/guide-steps';
import { PlayerStore } from './player.store';
import { RunState } from './run-state';

/** The guided first batch in a scene: it follows what is done, and rings what it speaks of. */
@Component({
  selector: 'wx-guided-batch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [GuideCard],
  template: '<wx-guide-card [state]="state()" (lookedAt)="pointAt($event)" (left)="left.emit()" />',
  styles: ':host { display: contents; }',
})
export class GuidedBatch implements OnDestroy {
  readonly left = output();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly run = inject(RunState);
  private readonly isPlaying = toSignal(inject(PlayerStore).isPlaying$, { requireSync: true });
  private runsAtFirst: number | null = null;
  private pointedAt: Element | null = null;

  protected readonly state = computed((): GuideState => {
    const draft = this.run.draft();
    const runs = this.run.standing()?.runs.length ?? 0;
    this.runsAtFirst ??= this.run.standing() ? runs : null;
    return {
      recipe: draft?.recipe ?? null,
      isLive: draft?.isLive === true,
      isPlaying: this.isPlaying(),
      isApplied: draft?.isApplied === true,
      runsAtFirst: this.runsAtFirst ?? runs,
      runs,
    };
  });

  ngOnDestroy(): void {
    this.pointedAt?.classList.remove('guided');
  }

  protected pointAt(selector: string | null): void {
    this.pointedAt?.classList.remove('guided');
    this.pointedAt = null;
    if (selector === null) return;
    setTimeout(() => {
      this.pointedAt = this.element.closest('wx-scene-page')?.querySelector(selector) ?? null;
      this.pointedAt?.classList.add('guided');
    });
  }
}
