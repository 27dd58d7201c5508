import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addMovement,
  addPart,
  changeMovement,
  CHANNEL_IDS,
  channelOf,
  conditionsOf,
  createMovement,
  DRAW_WAYS,
  FRAMING_WAYS,
  movementChannelChoices,
  movementChannels,
  movementEase,
  movementFormulas,
  movementLabel,
  MOVEMENTS,
  MOVEMENT_TYPES,
  moveMovement,
  partLimits,
  removeMovement,
  removePart,
  setMovementNumber,
  type ChannelId,
  type Movement,
  type MovementFormula,
  type MovementType,
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
import { MovementPath } from './movement-path';
import type { PresetChange } from './parameter-table';

const DRAW_WORDS = {
  beginning: 'from its beginning',
  end: 'from its end',
  middle: 'from its middle',
  piece: 'a piece that passes',
};
const FRAMING_WORDS = { all: 'through all of them', turns: 'one way each, by turns' };

/** What of a preset is more than keys at moments: bounces, springs, sways, paths, framings, drawn lines. */
@Component({
  selector: 'wx-movement-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingButton, FormulaField, FramingSketch, Icon, MatMenuModule, MovementPath],
  templateUrl: './movement-list.html',
  styleUrl: './movement-list.scss',
})
export class MovementList {
  readonly preset = input.required<Preset>();
  readonly shelf = input.required<Shelf>();
  readonly inspection = input.required<Inspection>();
  readonly channel = input.required<ChannelId | null>();
  /** Path layers of the scene that is the specimen. */
  readonly lines = input<readonly SceneLine[]>([]);
  /** Why movements cannot be, by their labels. */
  readonly troubles = input<ReadonlyMap<string, string>>(new Map());
  readonly changed = output<PresetChange>();
  readonly channelChange = output<ChannelId>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly facts = MOVEMENTS;
  protected readonly types = MOVEMENT_TYPES;
  protected readonly movements = computed(() => this.preset().movements ?? []);
  protected readonly conditions = computed(() => conditionsOf(this.preset().parameters));

  protected add(type: MovementType): void {
    const movement = createMovement(this.preset(), type);
    const preset = addMovement(this.preset(), movement);
    this.changed.emit({ label: `Add ${movementLabel(movement)}`, preset });
    this.channelChange.emit(movementChannels(movement)[0]);
    setTimeout(() => this.element.querySelector<HTMLElement>(`[data-movement="${movement.id}"] .cell`)?.focus());
  }

  protected label(movement: Movement): string {
    return movementLabel(movement);
  }

  protected isShown(movement: Movement): boolean {
    const channel = this.channel();
    return channel !== null && movementChannels(movement).includes(channel);
  }

  protected show(movement: Movement): void {
    if (!this.isShown(movement)) this.channelChange.emit(movementChannels(movement)[0]);
  }

  protected channelsFor(movement: Movement): { readonly id: ChannelId; readonly label: string }[] {
    const own = 'channel' in movement ? [movement.channel] : [];
    const free = movementChannelChoices(this.preset(), movement.type, CHANNEL_IDS);
    return [...own, ...free].map((id) => ({ id, label: channelOf(id).label }));
  }

  /** What can be chosen of it besides its numbers, by a select. */
  protected choices(movement: Movement): readonly (readonly [value: string, words: string])[] {
    switch (movement.type) {
      case 'bounce':
        return [
          ['height', 'let go above'],
          ['speed', 'sets off at a speed'],
        ];
      case 'draw':
        return DRAW_WAYS.map((way) => [way, DRAW_WORDS[way]]);
      case 'framing':
        return FRAMING_WAYS.map((way) => [way, FRAMING_WORDS[way]]);
      default:
        return [];
    }
  }

  protected chosen(movement: Movement): string {
    if (movement.type === 'bounce') return movement.by;
    return 'way' in movement ? movement.way : '';
  }

  protected choose(movement: Movement, event: Event): void {
    const value = (event.target as HTMLSelectElement).value;
    this.change(movement, movement.type === 'bounce' ? { by: value } : { way: value }, 'How it goes');
  }

  /** Numbers of the movement itself that count as it is set. */
  protected numbers(movement: Movement): MovementFormula[] {
    return movementFormulas(movement).filter(({ field }) => !field.includes('.') && counts(movement, field));
  }

  protected parts(movement: Movement): readonly (readonly MovementFormula[])[] {
    if (!('parts' in movement)) return [];
    const all = movementFormulas(movement);
    return movement.parts.map((_, i) => all.filter(({ field }) => field.startsWith(`${i}.`)));
  }

  protected isLeast(movement: Movement): boolean {
    return 'parts' in movement && movement.parts.length <= partLimits(movement.type)[0];
  }

  protected isMost(movement: Movement): boolean {
    return 'parts' in movement && movement.parts.length >= partLimits(movement.type)[1];
  }

  protected partWord({ type }: Movement): string {
    return type === 'framing' ? 'framing' : 'rate';
  }

  protected problem({ id }: Movement, field: string): string | null {
    return this.inspection().movementProblem(id, field)?.message ?? null;
  }

  protected completions(movement: Movement, { number }: MovementFormula): readonly Completion[] {
    const isOfChannel = typeof number.type === 'string' && 'channel' in movement;
    return completionsFor(scopeFor(this.preset(), isOfChannel ? movement.channel : null), this.preset());
  }

  protected write(movement: Movement, field: string, text: string): void {
    const preset = setMovementNumber(this.preset(), movement.id, field, text);
    this.changed.emit({ label: this.label(movement), preset, merge: `movement ${movement.id} ${field}` });
  }

  protected change(movement: Movement, fields: object, label: string): void {
    const preset = changeMovement(this.preset(), movement.id, (before) => ({ ...before, ...fields }) as Movement);
    this.changed.emit({ label: `${label}: ${this.label(movement)}`, preset });
  }

  protected setChannel(movement: Movement, event: Event): void {
    const channel = (event.target as HTMLSelectElement).value as ChannelId;
    this.change(movement, { channel }, 'Another channel');
    this.channelChange.emit(channel);
  }

  protected setMoment(movement: Movement, side: 'from' | 'to', event: Event): void {
    this.change(movement, { [side]: (event.target as HTMLSelectElement).value }, 'Another moment');
  }

  protected setWhen(movement: Movement, when: string | null): void {
    const preset = changeMovement(
      this.preset(),
      movement.id,
      ({ when: _when, ...rest }) => (when === null ? rest : { ...rest, when }) as Movement,
    );
    this.changed.emit({ label: `When ${this.label(movement)} counts`, preset });
  }

  protected ease(movement: Movement): PresetEasing | null {
    return movementEase(movement);
  }

  protected setEase(movement: Movement, ease: PresetEasing): void {
    const preset = changeMovement(this.preset(), movement.id, (before) => ({ ...before, ease }) as Movement);
    this.changed.emit({ label: `Easing of ${this.label(movement)}`, preset, merge: `ease of ${movement.id}` });
  }

  protected addPart({ id }: Movement): void {
    this.changed.emit({ label: 'Add a part', preset: addPart(this.preset(), id) });
  }

  protected removePart({ id }: Movement, index: number): void {
    this.changed.emit({ label: 'Remove a part', preset: removePart(this.preset(), id, index) });
  }

  protected move({ id }: Movement, by: number): void {
    this.changed.emit({ label: 'Move a movement', preset: moveMovement(this.preset(), id, by) });
  }

  protected remove(movement: Movement): void {
    this.changed.emit({ label: `Remove ${this.label(movement)}`, preset: removeMovement(this.preset(), movement.id) });
  }

  /** Goes on to the formula beside the one that was left. */
  protected goOn(event: 'next' | 'previous'): void {
    const cells = [...this.element.querySelectorAll<HTMLElement>('.cell')];
    const at = cells.indexOf(document.activeElement as HTMLElement);
    cells[at + (event === 'next' ? 1 : -1)]?.focus();
  }
}

function counts(movement: Movement, field: string): boolean {
  if (movement.type === 'bounce') {
    if (field === 'height') return movement.by === 'height';
    if (field === 'speed') return movement.by === 'speed';
  }
  if (movement.type === 'draw') return movement.way === 'piece';
  if (movement.type === 'framing' && field === 'seed') return movement.way === 'turns';
  return true;
}
