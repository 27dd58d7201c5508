import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  createShelf,
  cssFromOklab,
  formatEasing,
  houseText,
  literalWords,
  oklabFromCss,
  recipeWords,
  type LibraryItem,
  type Recipe,
} from '@wexikine/core';
import { curvePath } from '../drawing/curve-shape';
import { lookSpecimen } from '../drawing/look-specimen';
import { ScenePicture } from '../drawing/scene-picture';
import { GhostTrail } from './ghost-trail';
import { LibraryService } from './library.service';
import { PalettePicture } from './palette-picture';

const BOX = { width: 160, height: 86, padding: 16 };

/** What an item is, as a picture: a preset's motion, a look, a palette, a curve, a house value, a recipe's sentence. */
@Component({
  selector: 'wx-item-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [GhostTrail, PalettePicture, ScenePicture],
  template: `
    @let shown = item();
    @if (shown.kind === 'preset' || shown.kind === 'rig') {
      <wx-ghost-trail [item]="shown" [parameters]="parameters()" [playing]="playing()" />
    } @else if (path(); as line) {
      <svg viewBox="0 0 160 86" aria-hidden="true" [class.playing]="playing()">
        <path class="frame" d="M16 70H144M16 16H144" />
        <path class="line" [attr.d]="line" />
        @if (timing(); as easing) {
          <circle r="4.5" cx="0" cy="0" [style.animation-timing-function]="easing" />
        }
      </svg>
    } @else if (sentence(); as words) {
      <p class="sentence">{{ words }}</p>
    } @else if (shown.kind === 'palette') {
      <wx-palette-picture [palette]="shown.body" />
    } @else if (look(); as scene) {
      <wx-scene-picture [scene]="scene" />
    } @else if (colour(); as fill) {
      <div class="plain" [style.background]="fill"></div>
    } @else {
      <div class="plain mono">{{ words() }}</div>
    }
  `,
  styles: `
    :host {
      display: block;
      background: #3c3c3a;
      overflow: hidden;
      aspect-ratio: 320 / 172;
    }
    svg,
    .plain {
      display: grid;
      place-items: center;
      width: 100%;
      height: 100%;
      color: #f3c98b;
      font-size: 24px;
    }
    wx-scene-picture {
      height: 100%;
      aspect-ratio: auto;
    }
    .sentence {
      display: -webkit-box;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 4;
      overflow: hidden;
      margin: 10px 12px;
      font: 600 13px/1.4 var(--font-head);
      color: #f3c98b;
    }
    .frame {
      stroke: #6f6c64;
      stroke-dasharray: 2 4;
    }
    .line {
      fill: none;
      stroke: #f3c98b;
      stroke-width: 3;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    circle {
      display: none;
      fill: #fffdf6;
      offset-path: path('M16 79H144');
    }
    .playing circle {
      display: block;
      animation: go 1.4s infinite;
    }
    @keyframes go {
      from {
        offset-distance: 0%;
      }
      70%,
      to {
        offset-distance: 100%;
      }
    }
  `,
})
export class ItemPicture {
  readonly item = input.required<LibraryItem>();
  readonly parameters = input<Readonly<Record<string, string>>>({});
  readonly playing = input(false);
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });

  private readonly easing = computed(() => {
    const item = this.item();
    if (item.kind === 'curve') return item.body.easing;
    return item.kind === 'house' && item.body.type === 'curve' ? item.body.value : null;
  });
  protected readonly path = computed(() => {
    const easing = this.easing();
    return easing && curvePath(easing, BOX);
  });
  protected readonly timing = computed(() => {
    const easing = this.easing();
    return easing && formatEasing(easing);
  });
  /** What a recipe says. */
  protected readonly sentence = computed(() => {
    const item = this.item();
    return item.kind === 'recipe' ? recipeWords(item.body as Recipe, this.shelf()) : null;
  });
  protected readonly colour = computed(() => {
    const item = this.item();
    if (item.kind !== 'house' || item.body.type !== 'colour') return null;
    const colour = oklabFromCss(item.body.value);
    return colour && cssFromOklab(colour);
  });
  protected readonly look = computed(() => {
    const item = this.item();
    return item.kind === 'look' ? lookSpecimen(item.body, this.shelf()) : null;
  });
  protected readonly words = computed(() => {
    const item = this.item();
    return item.kind === 'house' ? literalWords(houseText(item.body)) : '';
  });
}
