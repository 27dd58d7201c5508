import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { ICONS } from './icons.generated';

/** One icon of the shipped set, as large as the text around it. It is decoration: name the button, not the icon. */
@Component({
  selector: 'wx-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true', '[innerHTML]': 'svg()' },
  template: '',
  styles: `
    :host {
      display: inline-grid;
      width: 1em;
      height: 1em;
      flex: none;
    }
    :host ::ng-deep svg {
      width: 1em;
      height: 1em;
      fill: currentColor;
    }
  `,
})
export class Icon {
  readonly name = input.required<string>();
  private readonly sanitizer = inject(DomSanitizer);
  /** The markup is our own generated file, never data. */
  protected readonly svg = computed((): SafeHtml => this.sanitizer.bypassSecurityTrustHtml(ICONS[this.name()] ?? ''));
}
