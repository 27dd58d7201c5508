import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Icon } from '../icons/icon';
import { MORE_WORDS, type MoreStep } from './more-steps';

/** The button with what is done seldom. */
@Component({
  selector: 'wx-bench-more',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  template: `
    <button class="icon-button" type="button" [matMenuTriggerFor]="more" aria-label="More">
      <wx-icon name="more_vert" />
    </button>
    <mat-menu #more="matMenu">
      @for (step of steps(); track step) {
        <button mat-menu-item (click)="chosen.emit(step)">
          <wx-icon [name]="words[step].icon" />{{ words[step].label }}
        </button>
      }
    </mat-menu>
  `,
})
export class BenchMore {
  readonly steps = input.required<readonly MoreStep[]>();
  readonly chosen = output<MoreStep>();
  protected readonly words = MORE_WORDS;
}
