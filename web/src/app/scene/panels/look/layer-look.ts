import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { createShelf, type Layer } from '@wexikine/core';
import { LibraryService } from '../../../library/library.service';
import { KeepInLibrary } from '../../actions/keep-in-library';
import type { LayerStep } from '../../../looks/layer-step';
import { LookCrop } from '../../../looks/look-crop';
import { LookEffects } from '../../../looks/look-effects';
import { LookMasks } from '../../../looks/look-masks';
import { LookMix } from './look-mix';
import { LookPaint } from '../../../looks/look-paint';
import { LookTyping } from './look-typing';
import { LookWords } from './look-words';

/** All that is drawn of the selected layers besides their shape, one or many; what differs among them is shown as mixed. */
@Component({
  selector: 'wx-layer-look',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LookCrop, LookEffects, LookMasks, LookMix, LookPaint, LookTyping, LookWords],
  template: `
    <h3>
      Look
      @if (layers().length > 1) {
        <small>of the {{ layers().length }} selected layers</small>
      } @else {
        <button class="wx-button quiet" type="button" (click)="keep()">Keep it in the library…</button>
      }
    </h3>
    <wx-look-words [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-typing [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-crop [layers]="layers()" [all]="all()" (step)="step.emit($event)" />
    <wx-look-paint [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-effects [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-masks [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-mix [layers]="layers()" [all]="all()" (step)="step.emit($event)" />
  `,
  styleUrl: '../../../looks/look.scss',
})
export class LayerLookPanel {
  /** As they stand. */
  readonly layers = input.required<readonly Layer[]>();
  /** All of the scene, among which a matte is chosen. */
  readonly all = input.required<readonly Layer[]>();
  readonly step = output<LayerStep>();
  private readonly keeping = inject(KeepInLibrary);
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });

  protected keep(): void {
    this.keeping.askForLook(this.layers()[0], this.shelf());
  }
}
