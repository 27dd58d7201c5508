import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Layer } from '@wexikine/core';
import type { LayerStep } from '../layer-panel';
import { LookEffects } from './look-effects';
import { LookMasks } from './look-masks';
import { LookMix } from './look-mix';
import { LookPaint } from './look-paint';
import { LookWords } from './look-words';

/** All that is drawn of the selected layers besides their shape, one or many; what differs among them is shown as mixed. */
@Component({
  selector: 'wx-layer-look',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LookEffects, LookMasks, LookMix, LookPaint, LookWords],
  template: `
    <h3>
      Look
      @if (layers().length > 1) {
        <small>of the {{ layers().length }} selected layers</small>
      }
    </h3>
    <wx-look-words [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-paint [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-effects [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-masks [layers]="layers()" (step)="step.emit($event)" />
    <wx-look-mix [layers]="layers()" [all]="all()" (step)="step.emit($event)" />
  `,
  styleUrl: './look.scss',
})
export class LayerLookPanel {
  /** As they stand. */
  readonly layers = input.required<readonly Layer[]>();
  /** All of the scene, among which a matte is chosen. */
  readonly all = input.required<readonly Layer[]>();
  readonly step = output<LayerStep>();
}
