import { Injectable, signal, type TemplateRef } from '@angular/core';

/** Lets a screen put its own controls into the bar at the top. */
@Injectable({ providedIn: 'root' })
export class TopBar {
  readonly content = signal<TemplateRef<unknown> | null>(null);
}
