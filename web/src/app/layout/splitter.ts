import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { giveUpOnEscape } from '../give-up';

/** Pixels that an arrow key moves the line by; with Shift as many as this many times. */
const STEP = 16;
const COARSE = 4;

/** The line between two parts of a screen. Dragging it, or the arrow keys, give one of them more room. */
@Component({
  selector: 'wx-splitter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: `
    :host {
      position: relative;
      z-index: 2;
      background: var(--line-strong);
      touch-action: none;
    }
    /* Wider to the pointer than to the eye, but across the line only: along it it would reach out of the page. */
    :host::after {
      content: '';
      position: absolute;
      inset: -4px 0;
    }
    :host(.upright)::after {
      inset: 0 -4px;
    }
    :host(.upright) {
      width: 1px;
      cursor: col-resize;
    }
    :host(:not(.upright)) {
      height: 1px;
      cursor: row-resize;
    }
    :host(:hover),
    :host(:focus-visible) {
      background: var(--pine);
      outline: 2px solid var(--pine);
      outline-offset: 0;
    }
  `,
  host: {
    role: 'separator',
    tabindex: '0',
    '[class.upright]': 'upright()',
    '[attr.aria-orientation]': "upright() ? 'vertical' : 'horizontal'",
    '[attr.aria-label]': 'label()',
    '[attr.aria-valuenow]': 'percent()',
    'aria-valuemin': '0',
    'aria-valuemax': '100',
    '[attr.title]': "label() + ': drag, or use the arrow keys; double-click for the usual size'",
    '(pointerdown)': 'press($event)',
    '(pointermove)': 'drag($event)',
    '(pointerup)': 'release()',
    '(pointercancel)': 'giveUp()',
    '(dblclick)': 'reset.emit()',
    '(keydown)': 'key($event)',
  },
})
export class Splitter {
  readonly label = input.required<string>();
  /** Upright between left and right, else level between above and below. */
  readonly upright = input(false);
  /** Share of the room that the part before the line has, 0 to 1. */
  readonly share = input.required<number>();
  readonly shareChange = output<number>();
  readonly reset = output();

  protected readonly percent = computed(() => Math.round(this.share() * 100));
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** The share as it was when the line was taken hold of; null while it is not. */
  private before: number | null = null;

  constructor() {
    giveUpOnEscape(
      () => this.before !== null,
      () => this.giveUp(),
    );
  }

  protected press(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.preventDefault();
    this.element.focus();
    this.element.setPointerCapture(event.pointerId);
    this.before = this.share();
  }

  protected drag(event: PointerEvent): void {
    if (this.before === null) return;
    const { left, top, width, height } = this.room();
    this.shareChange.emit(this.upright() ? (event.clientX - left) / width : (event.clientY - top) / height);
  }

  protected release(): void {
    this.before = null;
  }

  protected giveUp(): void {
    if (this.before !== null) this.shareChange.emit(this.before);
    this.before = null;
  }

  protected key(event: KeyboardEvent): void {
    const [less, more] = this.upright() ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
    if (event.altKey || (event.key !== less && event.key !== more)) return;
    event.preventDefault();
    event.stopPropagation();
    const { width, height } = this.room();
    const step = (STEP * (event.shiftKey ? COARSE : 1)) / (this.upright() ? width : height);
    this.shareChange.emit(this.share() + (event.key === more ? step : -step));
  }

  private room(): DOMRect {
    return (this.element.parentElement as HTMLElement).getBoundingClientRect();
  }
}
