import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addPart,
  changeMovement,
  CHANNEL_IDS,
  channelOf,
  conditionsOf,
  movementChannelChoices,
  movementEase,
  movementLabel,
  MOVEMENTS,
  moveMovement,
  removeMovement,
  removePart,
  setMovementNumber,
  type ChannelId,
  type Movement,
  type MovementFormula,
  type Preset,
  type PresetEasing,
  type Shelf,
} from '@wexikine/core';
import type { SceneLine } from '../fields/scene-lines';
import { Icon } from '../icons/icon';
import { completionsFor, type Completion } from './completions';
import { EasingButton } from './easing-button';
import { FormulaField } from './formula-field';
import { FramingSketch } from './framing-sketch';
import { scopeFor, type Inspection } from './inspection';
import { choicesOf, choosing, chosenOf, numbersOf, partsFree, partsOf } from './movement-facts';
import { MovementPath } from './movement-path';
import type { PresetChange } from './parameter-table';

/** One movement of a preset: from when to when, its numbers as formulas, its parts. */
@Component({
  selector: 'wx-movement-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingButton, FormulaField, FramingSketch, Icon, MatMenuModule, MovementPath],
  templateUrl: './movement-card.html',
  styleUrl: './movement-card.scss',
  host: { role: 'region', '[attr.aria-label]': 'label()' },
})
export class MovementCard {
  readonly movement = input.required<Movement>();
  readonly preset = input.required<Preset>();
  readonly shelf = input.required<Shelf>();
  readonly inspection = input.required<Inspection>();
  /** Path layers of the scene that is the specimen. */
  readonly lines = input<readonly SceneLine[]>([]);
  /** Why it cannot be. */
  readonly trouble = input<string | null>(null);
  readonly isFirst = input.required<boolean>();
  readonly isLast = input.required<boolean>();
  readonly changed = output<PresetChange>();
  readonly channelChange = output<ChannelId>();
  /** A formula was left for the one beside it. */
  readonly left = output<'next' | 'previous'>();

  protected readonly facts = MOVEMENTS;
  protected readonly label = computed(() => movementLabel(this.movement()));
  protected readonly conditions = computed(() => conditionsOf(this.preset().parameters));
  protected readonly choices = computed(() => choicesOf(this.movement()));
  protected readonly chosen = computed(() => chosenOf(this.movement()));
  protected readonly numbers = computed(() => numbersOf(this.movement()));
  protected readonly parts = computed(() => partsOf(this.movement()));
  protected readonly free = computed(() => partsFree(this.movement()));
  protected readonly partWord = computed(() => (this.movement().type === 'framing' ? 'framing' : 'rate'));
  protected readonly ease = computed((): PresetEasing | null => movementEase(this.movement()));
  protected readonly channels = computed(() => {
    const movement = this.movement();
    const own = 'channel' in movement ? [movement.channel] : [];
    const free = movementChannelChoices(this.preset(), movement.type, CHANNEL_IDS);
    return [...own, ...free].map((id) => ({ id, label: channelOf(id).label }));
  });

  protected choose(event: Event): void {
    this.change(choosing(this.movement(), (event.target as HTMLSelectElement).value), 'How it goes');
  }

  protected problem(field: string): string | null {
    return this.inspection().movementProblem(this.movement().id, field)?.message ?? null;
  }

  protected completions({ number }: MovementFormula): readonly Completion[] {
    const movement = this.movement();
    const isOfChannel = typeof number.type === 'string' && 'channel' in movement;
    return completionsFor(scopeFor(this.preset(), isOfChannel ? movement.channel : null), this.preset());
  }

  protected write(field: string, text: string): void {
    const { id } = this.movement();
    const preset = setMovementNumber(this.preset(), id, field, text);
    this.changed.emit({ label: this.label(), preset, merge: `movement ${id} ${field}` });
  }

  protected change(fields: object, label: string): void {
    this.changed.emit({
      label: `${label}: ${this.label()}`,
      preset: this.with((before) => ({ ...before, ...fields })),
    });
  }

  protected setChannel(event: Event): void {
    const channel = (event.target as HTMLSelectElement).value as ChannelId;
    this.change({ channel }, 'Another channel');
    this.channelChange.emit(channel);
  }

  protected setMoment(side: 'from' | 'to', event: Event): void {
    this.change({ [side]: (event.target as HTMLSelectElement).value }, 'Another moment');
  }

  protected setWhen(when: string | null): void {
    const preset = this.with(({ when: _when, ...rest }) => (when === null ? rest : { ...rest, when }));
    this.changed.emit({ label: `When ${this.label()} counts`, preset });
  }

  protected setEase(ease: PresetEasing): void {
    const preset = this.with((before) => ({ ...before, ease }));
    this.changed.emit({ label: `Easing of ${this.label()}`, preset, merge: `ease of ${this.movement().id}` });
  }

  protected addPart(): void {
    this.changed.emit({ label: 'Add a part', preset: addPart(this.preset(), this.movement().id) });
  }

  protected removePart(index: number): void {
    this.changed.emit({ label: 'Remove a part', preset: removePart(this.preset(), this.movement().id, index) });
  }

  protected move(by: number): void {
    this.changed.emit({ label: 'Move a movement', preset: moveMovement(this.preset(), this.movement().id, by) });
  }

  protected remove(): void {
    const preset = removeMovement(this.preset(), this.movement().id);
    this.changed.emit({ label: `Remove ${this.label()}`, preset });
  }

  private with(change: (before: Movement) => object): Preset {
    return changeMovement(this.preset(), this.movement().id, (before) => change(before) as Movement);
  }
}
