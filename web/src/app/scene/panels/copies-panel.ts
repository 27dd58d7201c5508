import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  copyPlaceWords,
  exchanged,
  restValue,
  type Layer,
  type LayerValues,
  type MultiplyRecipe,
  type Recipe,
  type Scene,
  type Ticks,
} from '@wexikine/core';

const [WIDTH, HEIGHT] = [128, 72];
const [CHART_WIDTH, CHART_HEIGHT] = [500, 72];
const MOST_DOTS = 400;
const MOST_SEED = 10_000;

interface Dot {
  readonly x: number;
  readonly y: number;
}

/** Where a copy begins or ends, in px of the small frame. */
function dotOf(layer: Layer, end: 'begin' | 'end', { width, height }: Scene): Dot {
  const at = (channel: 'position.x' | 'position.y'): number => {
    const keys = layer.tracks[channel];
    if (!keys || keys.length === 0) return restValue(layer, channel);
    return end === 'begin' ? keys[0].value : keys[keys.length - 1].value;
  };
  return { x: (at('position.x') / width) * WIDTH, y: (at('position.y') / height) * HEIGHT };
}

/** Copies of a dry run: where they begin and end, how many are there at once, and drawing anew. */
@Component({
  selector: 'wx-copies-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ends">
      @for (side of sides(); track side.words) {
        @if ($index === 1) {
          <span class="way" aria-hidden="true">→</span>
        }
        <figure>
          <svg
            [attr.width]="width"
            [attr.height]="height"
            [attr.viewBox]="box"
            role="img"
            [attr.aria-label]="side.words"
          >
            @for (dot of side.dots; track $index) {
              <circle [attr.cx]="dot.x" [attr.cy]="dot.y" r="2" />
            }
          </svg>
          <figcaption [title]="side.words">{{ side.words }}</figcaption>
        </figure>
      }
      <div class="tools">
        <button class="wx-button" type="button" (click)="exchange()">Exchange beginning and end</button>
        <strong>Roll again</strong>
        <div class="row" role="group" aria-label="Roll the copies again">
          <button class="wx-button" type="button" (click)="roll('place')">place</button>
          <button class="wx-button" type="button" (click)="roll('time')">time</button>
          <button class="wx-button" type="button" (click)="roll('look')">look</button>
          <button class="wx-button main" type="button" (click)="roll('all')">all</button>
        </div>
      </div>
    </div>
    <h3>
      How many are there at once <small>{{ most() }} at most, {{ now() }} at the playhead</small>
    </h3>
    <svg
      class="chart"
      [attr.viewBox]="chartBox"
      preserveAspectRatio="none"
      role="img"
      [attr.aria-label]="'How many copies are there at each moment: ' + most() + ' at most'"
    >
      <path [attr.d]="area()" />
      <line [attr.x1]="playheadX()" [attr.x2]="playheadX()" y1="0" [attr.y2]="chartHeight" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
      padding: 10px 12px;
    }
    .ends {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 10px;
      align-items: flex-start;
    }
    figure {
      width: 128px;
      margin: 0;
    }
    figure svg {
      border: 1px solid var(--line-strong);
      border-radius: 6px;
      background: var(--paper-high);
    }
    circle {
      fill: var(--pine);
      opacity: 0.7;
    }
    figcaption {
      display: -webkit-box;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 2;
      line-clamp: 2;
      overflow: hidden;
      font-size: 12px;
      line-height: 1.25;
      color: var(--ink-soft);
    }
    .way {
      margin-top: 22px;
      font-size: 20px;
    }
    .tools {
      display: grid;
      gap: 6px;
      margin-left: 4px;
      font-size: 13px;
    }
    .row {
      display: flex;
      gap: 6px;
    }
    .row .wx-button {
      padding: 4px 10px;
    }
    h3 {
      margin: 12px 0 4px;
      font: 600 13px/1.4 var(--font-text);
    }
    small {
      margin-left: 6px;
      font-weight: 400;
      color: var(--ink-soft);
    }
    .chart {
      display: block;
      width: 100%;
      height: 72px;
    }
    .chart path {
      fill: var(--pine-wash);
      stroke: var(--pine);
      vector-effect: non-scaling-stroke;
    }
    .chart line {
      stroke: var(--rose);
      stroke-width: 1.5;
      vector-effect: non-scaling-stroke;
    }
  `,
})
export class CopiesPanel {
  readonly recipe = input.required<MultiplyRecipe>();
  /** The scene with the copies. */
  readonly drawn = input.required<Scene>();
  readonly copies = input.required<readonly LayerValues[]>();
  readonly time = input.required<Ticks>();
  readonly changed = output<Recipe>();

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly box = `0 0 ${WIDTH} ${HEIGHT}`;
  protected readonly chartHeight = CHART_HEIGHT;
  protected readonly chartBox = `0 0 ${CHART_WIDTH} ${CHART_HEIGHT}`;
  private readonly layers = computed(() => {
    const ids = new Set(this.copies().map(({ layer }) => layer));
    return this.drawn()
      .layers.filter(({ id }) => ids.has(id))
      .slice(0, MOST_DOTS);
  });
  protected readonly sides = computed(() => {
    const { begin, end } = this.recipe();
    const dots = (of: 'begin' | 'end'): Dot[] => this.layers().map((layer) => dotOf(layer, of, this.drawn()));
    return [
      { words: `They begin: ${copyPlaceWords(begin)}`, dots: dots('begin') },
      { words: `They end: ${copyPlaceWords(end)}`, dots: dots('end') },
    ];
  });

  /** How many copies there are from each time on at which one begins or ends. */
  private readonly steps = computed(() => {
    const changes = new Map<Ticks, number>();
    for (const { starts, lasts } of this.copies()) {
      changes.set(starts, (changes.get(starts) ?? 0) + 1);
      changes.set(starts + lasts, (changes.get(starts + lasts) ?? 0) - 1);
    }
    let count = 0;
    return [...changes].sort(([a], [b]) => a - b).map(([at, by]) => ({ at, count: (count += by) }));
  });
  protected readonly most = computed(() => this.steps().reduce((most, { count }) => Math.max(most, count), 0));
  protected readonly now = computed(() => this.steps().findLast(({ at }) => at <= this.time())?.count ?? 0);
  protected readonly area = computed(() => {
    const y = (count: number): number => CHART_HEIGHT - (count / Math.max(1, this.most())) * (CHART_HEIGHT - 6);
    const steps = this.steps().map(({ at, count }) => `H${this.xOf(at).toFixed(1)}V${y(count).toFixed(1)}`);
    return `M0 ${CHART_HEIGHT}${steps.join('')}H${CHART_WIDTH}V${CHART_HEIGHT}Z`;
  });
  protected readonly playheadX = computed(() => this.xOf(this.time()));

  private xOf(at: Ticks): number {
    return Math.min(CHART_WIDTH, Math.max(0, (at / this.drawn().length) * CHART_WIDTH));
  }

  protected exchange(): void {
    this.changed.emit(exchanged(this.recipe()));
  }

  /** Draws anew: all, or only places, times or looks, whose seed is then their own. */
  protected roll(what: 'all' | 'place' | 'time' | 'look'): void {
    this.changed.emit(rolled(this.recipe(), what));
  }
}

/** A recipe whose copies are drawn anew: all of it, or only places, times or looks, whose seed is then their own. */
export function rolled(recipe: MultiplyRecipe, what: 'all' | 'place' | 'time' | 'look'): MultiplyRecipe {
  const { seed, seeds, ...rest } = recipe;
  const next = (value: number): number => (value % MOST_SEED) + 1;
  if (what === 'all') return { ...rest, seed: next(seed) };
  return { ...rest, seed, seeds: { ...seeds, [what]: next(seeds?.[what] ?? seed) } };
}
