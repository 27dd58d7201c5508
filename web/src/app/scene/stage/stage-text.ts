import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  viewChild,
} from '@angular/core';
import { lineStep, matrixAt, restValue, stageMoment, type Layer, type Scene, type TextSource } from '@wexikine/core';
import { familyOf, spacedBy } from '@wexikine/paint/text';
import type { StagePlace } from './handle-marks';

/** The words that a layer shows, or was split from. */
export function wordsOf({ source, split }: Layer): TextSource | null {
  return source.type === 'text' ? source : (split?.source ?? null);
}

/** Words edited where they stand, in their own font, size and turn. Escape leaves them as they were. */
@Component({
  selector: 'wx-stage-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<textarea
    #field
    spellcheck="false"
    maxlength="5000"
    [attr.aria-label]="'Words of ' + layer().name"
    [style]="style()"
    [value]="source().text"
    (keydown)="key($event)"
    (blur)="done.emit(field.value)"
  ></textarea>`,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      overflow: hidden;
      pointer-events: none;
    }
    textarea {
      position: absolute;
      left: 0;
      top: 0;
      margin: 0;
      padding: 0;
      border: 0;
      outline: 2px solid #e0a526;
      background: rgb(29 38 41 / 78%);
      color: #fffdf6;
      overflow: hidden;
      resize: none;
      white-space: pre;
      transform-origin: 0 0;
      pointer-events: all;
    }
  `,
})
export class StageText {
  readonly scene = input.required<Scene>();
  readonly layer = input.required<Layer>();
  readonly time = input.required<number>();
  readonly place = input.required<StagePlace>();
  /** What was written; as it was, where that was left. */
  readonly done = output<string>();

  private readonly field = viewChild.required<ElementRef<HTMLTextAreaElement>>('field');
  protected readonly source = computed(() => wordsOf(this.layer()) as TextSource);
  protected readonly style = computed(() => {
    const [layer, source, place] = [this.layer(), this.source(), this.place()];
    const { compiled, frame } = stageMoment(this.scene(), 'along', Math.round(this.time()));
    const index = compiled.layers.findIndex(({ id }) => id === layer.id);
    const [a, b, c, d, e, f] = matrixAt(frame, Math.max(0, index)).map((value) => value * place.zoom);
    const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
    const lines = source.text.split('\n').length;
    const top = Math.max(0, (height - lines * lineStep(source)) / 2);
    const family = familyOf(source);
    const spacing = restValue(layer, 'letterSpacing');
    const aside = spacedBy(source, spacing);
    return {
      width: `${width}px`,
      height: `${Math.max(height, lineStep(source) * lines)}px`,
      'padding-top': `${top}px`,
      'box-sizing': 'border-box',
      transform: `matrix(${a}, ${b}, ${c}, ${d}, ${e + place.x + a * aside}, ${f + place.y + b * aside})`,
      font: `${source.weight} ${source.size}px/${lineStep(source)}px "${family}", sans-serif`,
      'letter-spacing': `${spacing}px`,
      'text-align': source.align === 'middle' ? 'center' : source.align,
    };
  });

  constructor() {
    afterNextRender(() => {
      this.field().nativeElement.focus({ preventScroll: true });
      this.field().nativeElement.select();
    });
  }

  protected key(event: KeyboardEvent): void {
    event.stopPropagation();
    const field = this.field().nativeElement;
    if (event.key === 'Escape') field.value = this.source().text;
    if (event.key === 'Escape' || (event.key === 'Enter' && (event.ctrlKey || event.metaKey))) field.blur();
  }
}
