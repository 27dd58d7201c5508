import { Injectable, type OnDestroy } from '@angular/core';
import { frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '@wexikine/core';
import { BehaviorSubject, distinctUntilChanged } from 'rxjs';

/** What is played: how long, and at which rate. */
export interface Stage {
  readonly rate: Rate;
  readonly length: Ticks;
}

/** Milliseconds over which the real rate is measured. */
const MEASURE_OVER = 1_000;

/**
 * The playhead of a scene. Playing follows the wall clock and shows whole frames: a frame that comes too late is left
 * out rather than shown late, and `rate$` says how many were really drawn in the last second.
 */
@Injectable()
export class PlayerStore implements OnDestroy {
  private readonly timeSubject = new BehaviorSubject<Ticks>(0);
  private readonly playingSubject = new BehaviorSubject(false);
  private readonly loopSubject = new BehaviorSubject(true);
  private readonly rateSubject = new BehaviorSubject<number | null>(null);
  private stage: Stage = { rate: { num: 25, den: 1 }, length: TICKS_PER_SECOND };
  private request = 0;
  private began = { clock: 0, frame: 0 };
  private drawn: number[] = [];

  readonly time$ = this.timeSubject.pipe(distinctUntilChanged());
  readonly isPlaying$ = this.playingSubject.asObservable();
  readonly isLooping$ = this.loopSubject.asObservable();
  /** Frames per second really drawn while playing; null while it stands. */
  readonly rate$ = this.rateSubject.pipe(distinctUntilChanged());

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
  }

  get time(): Ticks {
    return this.timeSubject.value;
  }

  setStage(stage: Stage): void {
    this.stage = stage;
    if (this.time > this.lastFrame) this.timeSubject.next(this.lastFrame);
  }

  /** Puts the playhead on the frame nearest to a time, within the scene. */
  go(time: Ticks): void {
    const frame = frameTicks(this.stage.rate);
    const nearest = Math.round(time / frame) * frame;
    this.timeSubject.next(Math.min(this.lastFrame, Math.max(0, nearest)));
    this.begin();
  }

  step(frames: number): void {
    this.pause();
    this.go(this.time + frames * frameTicks(this.stage.rate));
  }

  toggle(): void {
    if (this.playingSubject.value) this.pause();
    else this.play();
  }

  play(): void {
    if (this.time >= this.lastFrame) this.timeSubject.next(0);
    this.playingSubject.next(true);
    this.drawn = [];
    this.begin();
    this.request = requestAnimationFrame(this.tick);
  }

  pause(): void {
    cancelAnimationFrame(this.request);
    this.playingSubject.next(false);
    this.rateSubject.next(null);
  }

  toggleLoop(): void {
    this.loopSubject.next(!this.loopSubject.value);
  }

  /** Told by the preview when it has drawn a frame. */
  countDrawn(): void {
    if (!this.playingSubject.value) return;
    const now = performance.now();
    this.drawn = [...this.drawn.filter((at) => now - at < MEASURE_OVER), now];
    const span = now - this.drawn[0];
    if (this.drawn.length > 5) this.rateSubject.next(Math.round(((this.drawn.length - 1) / span) * 10_000) / 10);
  }

  private get lastFrame(): Ticks {
    const frame = frameTicks(this.stage.rate);
    return Math.max(0, Math.ceil(this.stage.length / frame) - 1) * frame;
  }

  private begin(): void {
    this.began = { clock: performance.now(), frame: Math.round(this.time / frameTicks(this.stage.rate)) };
  }

  private readonly tick = (): void => {
    const { num, den } = this.stage.rate;
    const frame = frameTicks(this.stage.rate);
    const passed = Math.floor(((performance.now() - this.began.clock) / 1_000) * (num / den));
    const count = this.lastFrame / frame + 1;
    const at = this.began.frame + passed;
    if (at >= count && !this.loopSubject.value) {
      this.timeSubject.next(this.lastFrame);
      return this.pause();
    }
    this.timeSubject.next((at % count) * frame);
    this.request = requestAnimationFrame(this.tick);
  };
}
