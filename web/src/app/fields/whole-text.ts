import { AfterViewInit, Directive, ElementRef, inject, OnDestroy } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';

/**
 * Shows a text whole where there is not room for it: on hover, and when it, or the row that it stands in, has the
 * keyboard's focus.
 */
@Directive({ selector: '[wxWhole]', hostDirectives: [MatTooltip], host: { '(mouseenter)': 'look()' } })
export class WholeText implements AfterViewInit, OnDestroy {
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly tooltip = inject(MatTooltip);
  private focused: Element | null = null;

  ngAfterViewInit(): void {
    this.tooltip.showDelay = 300;
    this.focused = this.element.closest('[tabindex], button, a');
    this.focused?.addEventListener('focus', this.show);
    this.focused?.addEventListener('blur', this.hide);
  }

  ngOnDestroy(): void {
    this.focused?.removeEventListener('focus', this.show);
    this.focused?.removeEventListener('blur', this.hide);
  }

  /** A tooltip only where something of the text is cut off. */
  protected look(): void {
    const { scrollWidth, clientWidth, scrollHeight, clientHeight } = this.element;
    const isCut = scrollWidth > clientWidth || scrollHeight > clientHeight + 1;
    this.tooltip.message = isCut ? (this.element.textContent ?? '').trim() : '';
  }

  private readonly show = (): void => {
    this.look();
    if (this.focused?.matches(':focus-visible')) this.tooltip.show();
  };

  private readonly hide = (): void => this.tooltip.hide();
}
