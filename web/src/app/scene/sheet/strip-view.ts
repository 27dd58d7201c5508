import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Layer } from '@wexikine/core';
import { createStrip, stripWords, thinned, type DrivenLayer, type MarkKind, type ThinnedMark } from './strip';
import type { TimeWindow } from './time-window';

const WING = 5;
/** Height of a strip in px. */
export const STRIP_HEIGHT = 29;

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
        [class.moving]="strip().marks.length > 0"
        [attr.x]="strip().left"
        [attr.width]="strip().width"
        [attr.y]="strip().marks.length > 0 ? 4 : 12"
        [attr.height]="strip().marks.length > 0 ? height - 8 : 5"
        rx="3"
      />
      <path class="before" [attr.d]="strip().before" />
      <path class="curve" [attr.d]="strip().curve" />
      <path class="gone" [attr.d]="gone()" />
      <path class="mark" [attr.d]="standingMarks()" />
      <path class="mark new" [attr.d]="newMarks()" />
    </svg>
  `,
  styles: `
    :host {
      contain: strict;
      display: block;
      height: 29px;
    }
    svg {
      contain: strict;
      display: block;
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

  /** All marks of a kind in one path: hundreds of elements a change would keep the sheet waiting. */
  protected readonly gone = computed(() => this.strip().gone.map(gonePath).join(''));
  protected readonly standingMarks = computed(() => this.marks(false));
  protected readonly newMarks = computed(() => this.marks(true));

  /** What the marks say, for those who do not see them. */
  protected readonly words = computed(() => stripWords(this.strip()));

  private readonly apart = computed(() => thinned(this.strip().marks));

  private marks(isNew: boolean): string {
    return this.apart()
      .filter(({ kind }) => (kind !== 'standing') === isNew)
      .map(markPath)
      .join('');
  }
}

/** A key that goes: a small cross at the foot of the row. */
function gonePath(x: number): string {
  return `M${x - 2.5} 22L${x + 2.5} 27M${x + 2.5} 22L${x - 2.5} 27`;
}

/** Wings by slope on a post; see the component for the posts. */
function markPath({ x, y, arrives, leaves, kind, wing }: ThinnedMark): string {
  const reach = WING * wing;
  const wings = `M${x - reach} ${y - arrives * reach}L${x} ${y}L${x + reach} ${y + leaves * reach}`;
  return `${reach < 1.5 ? '' : wings}${postPath(x, kind)}`;
}

function postPath(x: number, kind: MarkKind): string {
  switch (kind) {
    case 'standing':
      return `M${x} 6V23`;
    case 'added':
      return `M${x} 3V26M${x - 2} 26H${x + 2}`;
    case 'replaced':
      return `M${x} 3V26M${x - 2.5} 26H${x + 2.5}M${x - 2.5} 3H${x + 2.5}`;
  }
}
