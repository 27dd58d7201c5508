import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { lettersOf, type Edit, type NumberFormat, type TextSource } from '@wexikine/core';
import { LookPart } from '../../../looks/look-part';
import { common, wordLayers } from '../../../looks/looks';

const PLAIN: NumberFormat = { decimals: 0, point: '.', group: ' ' };
const GROUPS: readonly (readonly [NumberFormat['group'], string])[] = [
  ['', '1234'],
  [' ', '1 234'],
  [',', '1,234'],
  ['.', '1.234'],
  ['’', '1’234'],
];
const DECIMALS = [0, 1, 2, 3, 4, 5, 6];

/** Words that are typed, and numbers that stand in them. */
@Component({
  selector: 'wx-look-typing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './look-typing.html',
  styleUrl: '../../../looks/look.scss',
})
export class LookTyping extends LookPart {
  protected readonly groups = GROUPS;
  protected readonly decimals = DECIMALS;
  protected readonly words = computed(() => wordLayers(this.layers()));
  /** Those of them that show a number. */
  protected readonly counting = computed(() =>
    this.words().filter(({ source }) => source.type === 'text' && source.number),
  );
  protected readonly format = computed(() => ({
    decimals: this.ofFormat('decimals'),
    point: this.ofFormat('point'),
    group: this.ofFormat('group'),
  }));
  protected readonly caret = computed(() => common(this.words(), ({ source }) => (source as TextSource).caret ?? ''));

  private ofFormat<K extends keyof NumberFormat>(field: K): NumberFormat[K] | null {
    return common(this.counting(), ({ source }) => ((source as TextSource).number ?? PLAIN)[field]);
  }

  private set(label: string, change: (source: TextSource) => TextSource): void {
    const edits = this.words().map(({ id, source }): Edit => ({
      type: 'set-layer',
      layer: id,
      fields: { source: change(source as TextSource) },
    }));
    this.do(label, edits);
  }

  protected flipNumber(): void {
    const isOn = this.counting().length < this.words().length;
    this.set(isOn ? 'Show a number in the words' : 'Take the number out of the words', ({ number, ...words }) =>
      isOn ? { ...words, number: number ?? PLAIN } : words,
    );
  }

  protected setFormat(change: Partial<NumberFormat>): void {
    this.set('Set how the number is written', (source) =>
      source.number ? { ...source, number: { ...source.number, ...change } } : source,
    );
  }

  /** The point and what stands between thousands are never the same sign. */
  protected setGroup(group: NumberFormat['group']): void {
    this.setFormat({ group, ...(group === '.' ? { point: ',' } : group === ',' ? { point: '.' } : {}) });
  }

  protected setPoint(point: NumberFormat['point']): void {
    this.set('Set how the number is written', (source) => {
      if (!source.number) return source;
      const group = source.number.group === point ? ' ' : source.number.group;
      return { ...source, number: { ...source.number, point, group } };
    });
  }

  protected setCaret(event: Event): void {
    const sign = this.valueOf(event).trim();
    if (lettersOf(sign).length > 1 || sign.length > 8)
      return this.problem.set('A caret is one sign, such as | or ▌. Leave the field empty for none.');
    this.set('Set the caret', ({ caret: _before, ...words }) => (sign === '' ? words : { ...words, caret: sign }));
  }
}
