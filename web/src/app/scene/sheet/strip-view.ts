import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Layer, Ticks } from '@wexikine/core';
import { createStrip, stripWords, type DrivenLayer } from './strip';
import { pickedPath, STRIP_HEIGHT, stripPaths } from './strip-paths';
import type { TimeWindow } from './time-window';

/**
 * A layer's span, value curve and key marks in one row. Standing keys are ink posts; those of a dry run are saffron and
 * taller, with a foot where they are added and with foot and head where they take the place of another; a cross is one
 * that goes.
 */
@Component({
  selector: 'wx-strip-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg role="img" [attr.aria-label]="words()" [attr.width]="width()" [attr.height]="height">
      <rect
        class="span"
        [class.moving]="paths().span.isMoving"
        [attr.x]="strip().left"
        [attr.width]="strip().width"
        [attr.y]="paths().span.top"
        [attr.height]="paths().span.height"
        rx="3"
      />
      <path class="before" [attr.d]="paths().before" />
      <path class="curve" [attr.d]="paths().curve" />
      <path class="gone" [attr.d]="paths().gone" />
      @if (picks(); as d) {
        <path class="picked" [attr.d]="d" />
      }
      <path class="mark" [attr.d]="paths().standing" />
      <path class="mark new" [attr.d]="paths().made" />
    </svg>
  `,
  styles: `
    /* The cell cuts it off; more that cut would have to be painted apart, in every row. */
    :host {
      contain: size layout style;
      display: block;
      height: 29px;
    }
    svg {
      contain: size layout style;
      display: block;
      overflow: visible;
    }
    .span {
      fill: var(--line);
    }
    .span.moving {
      fill: var(--pine-wash);
    }
    .curve {
      fill: none;
      stroke: var(--pine);
      stroke-width: 1.6;
    }
    .before {
      fill: none;
      stroke: var(--ink-soft);
      stroke-dasharray: 2 2;
    }
    .mark {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.4;
      stroke-linecap: round;
    }
    .gone {
      fill: none;
      stroke: var(--rose);
      stroke-width: 1.4;
    }
    .picked {
      fill: none;
      stroke: var(--pine);
      stroke-opacity: 0.75;
      stroke-width: 4;
    }
    .mark.new {
      stroke: var(--saffron);
      stroke-width: 1.6;
    }
  `,
})
export class StripView {
  readonly layer = input.required<Layer>();
  /** The layer as it stands, without the dry run. */
  readonly standing = input<Layer>();
  /** The layer as the run of the dry run found it. */
  readonly under = input<Layer>();
  /** What rigs do to the layer. */
  readonly driven = input<DrivenLayer | null>(null);
  /** Times at which keys of the layer are picked. */
  readonly picked = input<ReadonlySet<Ticks> | null>(null);
  readonly runId = input.required<string | null>();
  readonly width = input.required<number>();
  readonly window = input.required<TimeWindow>();
  protected readonly height = STRIP_HEIGHT;

  protected readonly strip = computed(() =>
    createStrip(
      { layer: this.layer(), standing: this.standing(), under: this.under(), driven: this.driven() },
      this.runId(),
      { width: this.width(), height: STRIP_HEIGHT, window: this.window() },
    ),
  );

  protected readonly paths = computed(() => stripPaths(this.strip()));

  protected readonly picks = computed(() => pickedPath(this.picked(), this.window(), this.width()));

  /** What the marks say, for those who do not see them. */
  protected readonly words = computed(() => stripWords(this.strip()));
}
