import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Layer, LayerSource } from '@wexikine/core';
import { isPictured } from '../../looks/crop';
import { ArtworkActions } from '../artwork/artwork-actions';

type PictureSource = Extract<LayerSource, { type: 'picture' | 'clip' }>;

/** The picture or clip of the selected layers, and another one in its place: motion, look and size stay as they are. */
@Component({
  selector: 'wx-layer-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (pictures().length > 0) {
      <h3>
        {{ isClip() ? 'File' : 'Picture' }} <small>{{ about() }}</small>
      </h3>
      <div class="row">
        <label class="wx-button quiet file"
          >Replace…
          <input
            type="file"
            accept="image/*,.svg,video/webm,video/mp4"
            aria-label="Picture to take its place"
            (change)="replace($event)"
          />
        </label>
        @if (others() > 0) {
          <label class="tick"
            ><input type="checkbox" [checked]="isEverywhere()" (change)="isEverywhere.set(!isEverywhere())" /> in all
            {{ pictures().length + others() }} layers that show it</label
          >
        }
      </div>
    }
  `,
  styles: `
    h3 {
      margin: 8px 0 4px;
      font: 600 13px/1.4 var(--font-text);
    }
    small {
      margin-left: 6px;
      font-weight: 400;
      color: var(--ink-soft);
    }
    .row {
      display: flex;
      gap: 12px;
      align-items: center;
      margin-bottom: 8px;
    }
    .file {
      position: relative;
      cursor: pointer;
    }
    .file:focus-within {
      outline: 2px solid var(--pine);
    }
    .file input {
      position: absolute;
      width: 1px;
      opacity: 0;
    }
    .tick {
      display: flex;
      gap: 6px;
      align-items: center;
      font-size: 13px;
    }
  `,
})
export class LayerPicture {
  /** Those that are selected, as they stand. */
  readonly layers = input.required<readonly Layer[]>();
  /** All of the scene. */
  readonly all = input.required<readonly Layer[]>();

  private readonly artwork = inject(ArtworkActions);
  protected readonly isEverywhere = signal(false);
  protected readonly pictures = computed(() => this.layers().filter(isPictured));
  protected readonly isClip = computed(() => this.pictures().some(({ source }) => source.type === 'clip'));
  private readonly shown = computed(() => new Set(this.pictures().map(({ source }) => (source as PictureSource).href)));
  /** Layers that show one of these pictures besides those that are selected. */
  protected readonly others = computed(() => {
    const own = new Set(this.pictures().map(({ id }) => id));
    return this.all().filter((layer) => !own.has(layer.id) && this.isOne(layer)).length;
  });
  protected readonly about = computed(() => {
    const [first] = this.pictures();
    if (this.shown().size > 1) return `${this.shown().size} of them`;
    const { width, height } = first.source as PictureSource;
    return width && height ? `${width} × ${height} px` : 'kept in the scene itself';
  });

  /** True for a layer that shows one of the files that the selected ones do. */
  private isOne(layer: Layer): boolean {
    return isPictured(layer) && this.shown().has((layer.source as PictureSource).href);
  }

  protected async replace(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (!file) return;
    const layers = this.isEverywhere() ? this.all().filter((layer) => this.isOne(layer)) : this.pictures();
    await this.artwork.replace(
      file,
      layers.map(({ id }) => id),
    );
  }
}
