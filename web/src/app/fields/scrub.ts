import { Directive, ElementRef, inject, input, output } from '@angular/core';
import { giveUpOnEscape } from '../give-up';

/** Pixels of dragging for one step. */
const PIXELS_A_STEP = 4;
/** A press that moves less than this is a click. */
const CLICK_SLACK = 3;

/** Dragging an element sideways gives whole steps since the press began; a press without movement stays a click. */
@Directive({
  selector: '[wxScrub]',
  host: {
    '(pointerdown)': 'press($event)',
    '(pointermove)': 'drag($event)',
    '(pointerup)': 'release($event)',
    '(pointercancel)': 'giveUp()',
    '[style.cursor]': "wxScrub() ? 'ew-resize' : null",
    '[style.touch-action]': "wxScrub() ? 'pan-y' : null",
  },
})
export class Scrub {
  /** Whether it can be scrubbed at all. */
  readonly wxScrub = input(true);
  readonly scrubStart = output();
  /** Steps from where the press began, ten times as many with Shift. */
  readonly scrubbed = output<number>();
  readonly scrubEnd = output();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private from: number | null = null;
  private isScrubbing = false;

  constructor() {
    // While capturing, so that it comes before whatever the click would do on this very element.
    this.element.addEventListener('click', (event) => this.swallow(event), { capture: true });
    giveUpOnEscape(
      () => this.isScrubbing && this.from !== null,
      () => this.giveUp(),
    );
  }

  protected press(event: PointerEvent): void {
    if (!this.wxScrub() || event.button !== 0) return;
    this.from = event.clientX;
    this.isScrubbing = false;
  }

  protected drag(event: PointerEvent): void {
    if (this.from === null) return;
    const way = event.clientX - this.from;
    if (!this.isScrubbing) {
      if (Math.abs(way) < CLICK_SLACK) return;
      this.isScrubbing = true;
      this.element.setPointerCapture(event.pointerId);
      this.scrubStart.emit();
    }
    this.scrubbed.emit(Math.round(way / PIXELS_A_STEP) * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1));
  }

  protected release(event: PointerEvent): void {
    const isEnding = this.isScrubbing && this.from !== null;
    this.from = null;
    if (!isEnding) return;
    this.element.releasePointerCapture(event.pointerId);
    this.scrubEnd.emit();
  }

  /** No steps at all, as where the press began. */
  protected giveUp(): void {
    if (this.isScrubbing && this.from !== null) {
      this.scrubbed.emit(0);
      this.scrubEnd.emit();
    }
    this.from = null;
  }

  /** The click that ends a drag is not a click. */
  private swallow(event: MouseEvent): void {
    if (!this.isScrubbing) return;
    this.isScrubbing = false;
    event.stopImmediatePropagation();
    event.preventDefault();
  }
}
