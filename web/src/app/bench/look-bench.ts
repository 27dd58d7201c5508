import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  apply,
  createShelf,
  lookOfLayer,
  STYLE_PART_FACTS,
  type KeptLook,
  type LibraryDetail,
  type LookItem,
  type Scene,
} from '@wexikine/core';
import { lookLayer, lookSpecimen } from '../drawing/look-specimen';
import { ScenePicture } from '../drawing/scene-picture';
import { LibraryService } from '../library/library.service';
import { LookEffects } from '../looks/look-effects';
import { LookMasks } from '../looks/look-masks';
import { LookPaint } from '../looks/look-paint';
import type { LayerStep } from '../looks/layer-step';
import { EffectsList } from './effects-list';
import { ItemRecordView } from './item-record';
import { LookParameters, type LookChanged } from './look-parameters';

/** A look on the bench: the fields that layers have, what it looks like, and what would change with it. */
@Component({
  selector: 'wx-look-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EffectsList, ItemRecordView, LookEffects, LookParameters, LookMasks, LookPaint, ScenePicture],
  template: `
    <div class="editor">
      <p class="quiet-text">It sets {{ parts() }}. What it does not have, it takes away where it is put on.</p>
      <div class="parts">
        <wx-look-paint [layers]="layers()" (step)="take($event)" />
        <wx-look-effects [layers]="layers()" (step)="take($event)" />
        <wx-look-masks [isInLibrary]="true" [layers]="layers()" (step)="take($event)" />
      </div>
      <wx-look-parameters [look]="item().body" (changed)="changed.emit($event)" />
      @if (problem(); as sentence) {
        <p class="problem" role="alert">{{ sentence }}</p>
      }
      <wx-item-record [detail]="detail()" />
    </div>
    <aside tabindex="0" aria-label="What it looks like, and what would change">
      <wx-scene-picture [scene]="picture()" />
      <wx-effects-list [item]="item()" />
    </aside>
  `,
  styleUrl: './value-bench.scss',
  styles: `
    .parts {
      max-width: 620px;
    }
    aside wx-scene-picture {
      aspect-ratio: 320 / 172;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class LookBench {
  readonly item = input.required<LookItem>();
  readonly detail = input.required<LibraryDetail>();
  readonly changed = output<LookChanged>();

  protected readonly problem = signal<string | null>(null);
  protected readonly layers = computed(() => [lookLayer(this.item().body)]);
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly picture = computed(() => lookSpecimen(this.item().body, this.shelf()));
  protected readonly parts = computed(() => {
    const labels = this.item().body.parts.map((part) => STYLE_PART_FACTS[part].label);
    return new Intl.ListFormat('en', { type: 'conjunction' }).format(labels);
  });

  /** A step on the card that stands for all is a step of the look. */
  protected take({ label, edits }: LayerStep): void {
    const scene: Scene = { ...this.picture(), layers: this.layers() };
    const after = apply(scene, edits);
    if (!after.ok) return this.problem.set('That cannot be done to a look.');
    const taken = lookOfLayer(after.scene.layers[0], STYLE_PART_FACTS);
    const { parameters, formulas, colours } = this.item().body;
    // What hangs on parameters is no part of the card.
    const body: KeptLook | null = taken && {
      ...taken,
      ...(parameters ? { parameters } : {}),
      ...(formulas ? { formulas } : {}),
      ...(colours ? { colours } : {}),
    };
    this.problem.set(body ? null : 'A look has at least one part. Add another one before you take this away.');
    if (body) this.changed.emit({ label: label.replace(/ of “A card”$/, ''), body });
  }
}
