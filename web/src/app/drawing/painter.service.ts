import { Injectable } from '@angular/core';
import { createPainter, createSurfaces } from '@wexikine/paint';
import { BehaviorSubject } from 'rxjs';

/** The one painter of the page. `arrived$` counts pictures and fonts that came later, so that canvases draw again. */
@Injectable({ providedIn: 'root' })
export class PainterService {
  private readonly arrived = new BehaviorSubject(0);
  readonly arrived$ = this.arrived.asObservable();
  readonly painter = createPainter(createSurfaces(() => this.again()));

  constructor() {
    const fonts = ['700 20px "Bricolage Grotesque"', '500 20px "Spline Sans"', '500 20px "Spline Sans Mono"'];
    void Promise.all(fonts.map((font) => document.fonts.load(font))).then(() => this.again());
  }

  private again(): void {
    this.arrived.next(this.arrived.value + 1);
  }
}
