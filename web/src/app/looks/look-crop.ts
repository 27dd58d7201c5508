import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { restValue, type Layer } from '@wexikine/core';
import { LookPart } from './look-part';
import { common } from './looks';
import { commonRatio, isPictured, neighbourSize, RATIOS, ratioOf, readRatio } from './crop';

/** What of a picture or a clip shows: its centre, how near, and the ratio of its box. */
@Component({
  selector: 'wx-look-crop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './look-crop.html',
  styleUrl: './look.scss',
})
export class LookCrop extends LookPart {
  /** All of the scene, among which neighbours are looked for. */
  readonly all = input.required<readonly Layer[]>();
  protected readonly ratios = RATIOS;
  protected readonly pictures = computed(() => this.layers().filter(isPictured));
  protected readonly ratio = computed(() => {
    const ratio = common(this.pictures(), (layer) => Math.round(ratioOf(layer) * 1000) / 1000);
    return ratio === null ? '' : commonRatio(ratio);
  });
  protected readonly neighbours = computed(() => neighbourSize(this.pictures(), this.all()));

  /** The width stays, and the height becomes what the ratio asks for. */
  protected setRatio(text: string): void {
    const wanted = readRatio(text);
    if (wanted === null)
      return this.problem.set('Write a ratio such as 16:9, 1:1 or 1.85, or choose that of the file.');
    this.sized('Set the ratio', (layer) => {
      const ratio = wanted === 'file' ? this.fileRatio(layer) : wanted;
      const width = restValue(layer, 'size.x');
      return ratio === null ? null : { width, height: width / ratio };
    });
  }

  protected likeNeighbours(): void {
    const size = this.neighbours();
    if (size) this.sized('Crop as large as the neighbours', () => size);
  }

  private fileRatio({ source }: Layer): number | null {
    if (source.type !== 'picture' && source.type !== 'clip') return null;
    return source.width && source.height ? source.width / source.height : null;
  }

  private sized(
    label: string,
    sizeOf: (layer: Layer) => { readonly width: number; readonly height: number } | null,
  ): void {
    const edits = this.pictures().flatMap((layer) => {
      const size = sizeOf(layer);
      if (!size) return [];
      const { rest } = layer;
      const next = { ...rest, 'size.x': size.width, 'size.y': Math.round(size.height * 100) / 100 };
      return [{ type: 'set-layer' as const, layer: layer.id, fields: { rest: next } }];
    });
    if (edits.length === 0) return this.problem.set('The size of the file is not known; write a ratio.');
    this.do(label, edits);
  }
}
