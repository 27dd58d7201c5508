import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { LINEAR, reverseEasing, type Easing, type PresetEasing, type Shelf } from '@wexikine/core';
import { curvePath } from '../../drawing/curve-shape';

const BOX = { width: 34, height: 28, padding: 4 };

/** A preset's easing as it counts now; a curve parameter stands for its default, which the shelf cannot know. */
export function easingNow(ease: PresetEasing, shelf: Shelf): Easing {
  if (ease.type === 'parameter') return LINEAR;
  if (ease.type !== 'curve') return ease;
  const easing = shelf.curve(ease.id)?.easing ?? ease.is;
  return ease.reversed === true ? reverseEasing(easing) : easing;
}

/** An easing as a small curve; one taken from the library or from a parameter is marked. */
@Component({
  selector: 'wx-easing-chip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 34 28" aria-hidden="true"><path [attr.d]="path()" /></svg>
    @if (mark(); as text) {
      <small>{{ text }}</small>
    }
  `,
  styles: `
    :host {
      display: grid;
      justify-items: center;
      min-width: 0;
    }
    svg {
      width: 34px;
      height: 28px;
    }
    path {
      fill: none;
      stroke: var(--saffron);
      stroke-width: 2;
      stroke-linecap: round;
    }
    small {
      max-width: 40px;
      font-size: 10px;
      line-height: 1.1;
      color: var(--ink-soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class EasingChip {
  readonly ease = input.required<PresetEasing>();
  readonly shelf = input.required<Shelf>();

  protected readonly path = computed(() => curvePath(easingNow(this.ease(), this.shelf()), BOX));
  protected readonly mark = computed(() => {
    const ease = this.ease();
    if (ease.type === 'curve') return this.shelf().items.get(ease.id)?.name ?? ease.id;
    return ease.type === 'parameter' ? `@${ease.name}` : null;
  });
}
