import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  asBezier,
  easingOfFamily,
  easingText,
  EASED_ENDS,
  EASING_FAMILIES,
  HOLD,
  LINEAR,
  parseEasing,
  type EasedEnd,
  type Easing,
  type EasingFamily,
  type Parameter,
  type PresetEasing,
  type Shelf,
} from '@wexikine/core';
import { easingNow } from './easing-chip';
import { EasingNumbers } from './easing-numbers';
import { EasingPlot } from './easing-plot';

/** The ways in which an easing can be said. */
type Way = 'bezier' | 'spring' | 'family' | 'named' | 'steps' | 'linear' | 'hold' | 'points' | 'handles';

const WAYS: readonly { readonly way: Way; readonly label: string }[] = [
  { way: 'bezier', label: 'Bézier' },
  { way: 'spring', label: 'Spring' },
  { way: 'family', label: 'Family' },
  { way: 'named', label: 'Named' },
  { way: 'steps', label: 'Steps' },
  { way: 'linear', label: 'Even' },
  { way: 'hold', label: 'Hold' },
  { way: 'handles', label: 'Free handles' },
];

const STANDARD: Easing = { type: 'bezier', x1: 0.35, y1: 0, x2: 0.65, y2: 1 };

function wayOf(ease: PresetEasing): Way {
  return ease.type === 'curve' || ease.type === 'parameter' ? 'named' : ease.type;
}

/** Everything an easing can be: drawn with its speed, handles by pointer and by number, or as text. */
@Component({
  selector: 'wx-easing-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingNumbers, EasingPlot],
  templateUrl: './easing-editor.html',
  styleUrl: './easing-editor.scss',
})
export class EasingEditor {
  readonly ease = input.required<PresetEasing>();
  /** What is published, drawn behind. */
  readonly behind = input<PresetEasing | null>(null);
  readonly shelf = input.required<Shelf>();
  /** Of the preset, to choose curve parameters among; without a preset there are none. */
  readonly parameters = input<readonly Parameter[]>([]);
  /** Whether named curves may be referred to, which a named curve itself may not. */
  readonly canRefer = input(true);
  readonly changed = output<PresetEasing>();

  protected readonly families = EASING_FAMILIES;
  protected readonly ends = EASED_ENDS;
  protected readonly family = signal<EasingFamily>('cubic');
  protected readonly end = signal<EasedEnd>('arrival');
  protected readonly textProblem = signal<string | null>(null);
  /** A way that was asked for while the easing is still another, such as the families. */
  private readonly asked = signal<Way | null>(null);

  protected readonly ways = computed(() =>
    WAYS.filter(({ way }) => (way !== 'named' || this.canRefer()) && (way !== 'handles' || this.canRefer())),
  );
  protected readonly way = computed((): Way => this.asked() ?? wayOf(this.ease()));
  protected readonly now = computed(() => easingNow(this.ease(), this.shelf()));
  protected readonly before = computed(() => {
    const behind = this.behind();
    return behind && easingNow(behind, this.shelf());
  });
  protected readonly text = computed(() => easingText(this.now()) ?? '');

  protected readonly named = computed(() =>
    [...this.shelf().items.values()].filter(
      (item) =>
        (item.kind === 'curve' || (item.kind === 'house' && item.body.type === 'curve')) &&
        (item.state !== 'retired' || this.isChosen(item.id)),
    ),
  );
  protected readonly curveParameters = computed(() => this.parameters().filter(({ kind }) => kind === 'curve'));

  protected choose(way: Way): void {
    this.asked.set(null);
    this.textProblem.set(null);
    if (way === wayOf(this.ease())) return;
    switch (way) {
      case 'bezier':
        return this.changed.emit(asBezier(this.now(), 0, 1) ?? STANDARD);
      case 'spring':
        return this.changed.emit({ type: 'spring', damping: 0.4, within: 0.001 });
      case 'steps':
        return this.changed.emit({ type: 'steps', count: 4, jump: 'end' });
      case 'linear':
        return this.changed.emit(LINEAR);
      case 'hold':
        return this.changed.emit(HOLD);
      case 'handles':
        return this.changed.emit({
          type: 'handles',
          leave: { time: 0.33, value: 0 },
          arrive: { time: 0.33, value: 0 },
        });
      default:
        return this.asked.set(way);
    }
  }

  protected drag(easing: Easing): void {
    this.asked.set(null);
    this.changed.emit(easing);
  }

  protected setFamily(event: Event): void {
    this.family.set((event.target as HTMLSelectElement).value as EasingFamily);
    this.takeFamily();
  }

  protected setEnd(event: Event): void {
    this.end.set((event.target as HTMLSelectElement).value as EasedEnd);
    this.takeFamily();
  }

  protected takeFamily(): void {
    this.changed.emit(easingOfFamily(this.family(), this.end()));
  }

  protected setText(event: Event): void {
    const { value } = event.target as HTMLInputElement;
    if (value.trim() === '' || value === this.text()) return this.textProblem.set(null);
    const result = parseEasing(value);
    this.textProblem.set(result.ok ? null : result.message);
    if (!result.ok) return;
    this.asked.set(null);
    this.changed.emit(result.easing);
  }

  protected isChosen(id: string): boolean {
    const ease = this.ease();
    return ease.type === 'curve' && ease.id === id;
  }

  protected isParameter(name: string): boolean {
    const ease = this.ease();
    return ease.type === 'parameter' && ease.name === name;
  }

  protected take(id: string): void {
    const found = this.shelf().curve(id);
    if (found) this.changed.emit({ type: 'curve', id, revision: found.revision, is: found.easing });
  }

  protected takeParameter(name: string): void {
    this.changed.emit({ type: 'parameter', name });
  }

  protected isReversed(): boolean {
    const ease = this.ease();
    return (ease.type === 'curve' || ease.type === 'parameter') && ease.reversed === true;
  }

  protected reverse(): void {
    const ease = this.ease();
    if (ease.type !== 'curve' && ease.type !== 'parameter') return;
    const { reversed, ...rest } = ease;
    this.changed.emit(reversed === true ? rest : { ...rest, reversed: true });
  }
}
