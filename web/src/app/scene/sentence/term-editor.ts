import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { isSeen, LAYER_KINDS, type DataTest, type LayerKind, type PickTerm, type Scene } from '@wexikine/core';
import { NumberField } from '../../fields/number-field';

interface Counted {
  readonly text: string;
  readonly count: number;
}

type TermOf<B extends PickTerm['by']> = Extract<PickTerm, { by: B }>;

const MOST_TAGS = 40;
const SIDES = [
  ['left', 'from the left'],
  ['top', 'from the top'],
  ['right', 'to, across'],
  ['bottom', 'to, down'],
] as const;
const TESTS: readonly (readonly [DataTest, string])[] = [
  ['is', 'is'],
  ['is-not', 'is not'],
  ['contains', 'contains'],
  ['above', 'is above'],
  ['below', 'is below'],
  ['filled', 'is filled'],
  ['empty', 'is empty'],
];

function count(values: readonly string[]): Counted[] {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].map(([text, number]) => ({ text, count: number })).sort((a, b) => b.count - a.count);
}

/** One condition of a pick. */
@Component({
  selector: 'wx-term-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberField],
  templateUrl: './term-editor.html',
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .tags {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      font-weight: 400;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class TermEditor {
  readonly term = input.required<PickTerm>();
  readonly scene = input.required<Scene>();
  readonly changed = output<PickTerm>();

  protected readonly kinds = LAYER_KINDS.filter((kind) => isSeen({ kind }));
  protected readonly tests = TESTS;
  protected readonly sides = SIDES;
  protected readonly tags = computed(() => count(this.scene().layers.flatMap(({ tags }) => tags)).slice(0, MOST_TAGS));
  protected readonly groups = computed(() => this.scene().layers.filter(({ kind }) => kind === 'group'));
  protected readonly drawn = computed(() => this.scene().layers.filter(isSeen));
  protected readonly columns = computed(() => count(this.scene().layers.flatMap(({ data }) => Object.keys(data))));

  protected of<B extends PickTerm['by']>(by: B): TermOf<B> | null {
    const term = this.term();
    return term.by === by ? (term as TermOf<B>) : null;
  }

  protected needsValue(test: DataTest): boolean {
    return test !== 'filled' && test !== 'empty';
  }

  protected setTag(rule: TermOf<'rule'>, tag: string): void {
    const { tag: standing, ...rest } = rule;
    this.changed.emit(standing === tag ? rest : { ...rest, tag });
  }

  protected setName(rule: TermOf<'rule'>, event: Event): void {
    const name = this.read(event);
    const { name: _standing, ...rest } = rule;
    this.changed.emit(name.trim() === '' ? rest : { ...rest, name });
  }

  protected setKind(rule: TermOf<'rule'>, event: Event): void {
    const kind = this.read(event);
    const { kind: _standing, ...rest } = rule;
    this.changed.emit(kind === '' ? rest : { ...rest, kind: kind as LayerKind });
  }

  protected setShare(region: TermOf<'region'>, side: (typeof SIDES)[number][0], percent: number): void {
    this.changed.emit({ ...region, [side]: percent / 100 });
  }

  protected set(term: PickTerm, field: string, event: Event): void {
    this.changed.emit({ ...term, [field]: this.read(event) } as PickTerm);
  }

  protected read(event: Event): string {
    return (event.target as HTMLInputElement | HTMLSelectElement).value;
  }
}
