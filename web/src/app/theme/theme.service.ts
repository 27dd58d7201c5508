import { DOCUMENT, Injectable, inject } from '@angular/core';
import { BehaviorSubject } from 'rxjs';

/** Light, dark, or as the system is. */
export type Theme = 'light' | 'dark';

const STORED = 'wexikine.theme';

/** Light or dark: what was chosen last, or else what the system asks for. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  private readonly document = inject(DOCUMENT);
  private readonly subject = new BehaviorSubject<Theme>(this.first());
  readonly theme$ = this.subject.asObservable();

  constructor() {
    this.show(this.subject.value);
  }

  toggle(): void {
    const theme = this.subject.value === 'light' ? 'dark' : 'light';
    this.subject.next(theme);
    localStorage.setItem(STORED, theme);
    this.show(theme);
  }

  private first(): Theme {
    const stored = localStorage.getItem(STORED);
    if (stored === 'light' || stored === 'dark') return stored;
    return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
  }

  private show(theme: Theme): void {
    this.document.documentElement.dataset['theme'] = theme;
  }
}
