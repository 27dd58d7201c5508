import { Injectable, type OnDestroy } from '@angular/core';
import { frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '@wexikine/core';
import { BehaviorSubject, distinctUntilChanged, map } from 'rxjs';
import { playedFrame, type PlayedFrames, type PlayMode } from './player-frames';

/** What is played: how long, and at which rate. */
export interface Stage {
  readonly rate: Rate;
  readonly length: Ticks;
}

/** How a scene is played: what happens at its end, how much slower than it is, and of which stretch of it. */
export interface PlayWay {
  readonly mode: PlayMode;
  /** 1 is its own pace, 0.5 half of it. */
  readonly pace: number;
  readonly range: { readonly from: Ticks; readonly to: Ticks } | null;
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
  private readonly waySubject = new BehaviorSubject<PlayWay>({ mode: 'loop', pace: 1, range: null });
  private readonly rateSubject = new BehaviorSubject<number | null>(null);
  private stage: Stage = { rate: { num: 25, den: 1 }, length: TICKS_PER_SECOND };
  private request = 0;
  private began = { clock: 0, frame: 0 };
  private drawn: number[] = [];

  readonly time$ = this.timeSubject.pipe(distinctUntilChanged());
  readonly isPlaying$ = this.playingSubject.asObservable();
  readonly way$ = this.waySubject.asObservable();
  readonly isLooping$ = this.way$.pipe(
    map(({ mode }) => mode !== 'once'),
    distinctUntilChanged(),
  );
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
    const { first, last } = this.played;
    const frame = frameTicks(this.stage.rate);
    if (this.time >= last * frame || this.time < first * frame) this.timeSubject.next(first * frame);
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
    this.setWay({ mode: this.waySubject.value.mode === 'once' ? 'loop' : 'once' });
  }

  /** How it is played: once or again, how slowly, and of which stretch. */
  setWay(way: Partial<PlayWay>): void {
    this.waySubject.next({ ...this.waySubject.value, ...way });
    this.begin();
  }

  /** Plays only the stretch in which some layers of a run do something. */
  playOnly(layers: readonly { readonly starts: Ticks; readonly lasts: Ticks }[]): void {
    if (layers.length === 0) return;
    const from = layers.reduce((least, { starts }) => Math.min(least, starts), Infinity);
    const to = layers.reduce((most, { starts, lasts }) => Math.max(most, starts + lasts), 0);
    this.setWay({ range: { from, to } });
  }

  /** One end of the stretch that is played, at the playhead; the other one stays where it lies on its side. */
  setEnd(end: 'from' | 'to'): void {
    const { range } = this.waySubject.value;
    const length = this.stage.length;
    const from = end === 'from' ? this.time : Math.min(range?.from ?? 0, this.time);
    const to = end === 'to' ? this.time : Math.max(range?.to ?? length, this.time);
    this.setWay({ range: { from, to } });
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

  /** The frames that are played: of the range where there is one, else of the whole scene. */
  private get played(): PlayedFrames {
    const frame = frameTicks(this.stage.rate);
    const { range } = this.waySubject.value;
    const last = this.lastFrame / frame;
    if (!range) return { first: 0, last };
    const first = Math.min(last, Math.max(0, Math.round(range.from / frame)));
    return { first, last: Math.min(last, Math.max(first, Math.round(range.to / frame))) };
  }

  private begin(): void {
    this.began = { clock: performance.now(), frame: Math.round(this.time / frameTicks(this.stage.rate)) };
  }

  private readonly tick = (): void => {
    const { num, den } = this.stage.rate;
    const { mode, pace } = this.waySubject.value;
    const passed = Math.floor(((performance.now() - this.began.clock) / 1_000) * (num / den) * pace);
    const { frame, isOver } = playedFrame(this.began.frame, passed, this.played, mode);
    this.timeSubject.next(frame * frameTicks(this.stage.rate));
    if (isOver) return this.pause();
    this.request = requestAnimationFrame(this.tick);
  };
}
