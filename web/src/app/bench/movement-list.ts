import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addMovement,
  createMovement,
  movementChannels,
  movementLabel,
  MOVEMENTS,
  MOVEMENT_TYPES,
  type ChannelId,
  type Movement,
  type MovementType,
  type Preset,
  type Shelf,
} from '@wexikine/core';
import type { SceneLine } from '../fields/scene-lines';
import { Icon } from '../icons/icon';
import type { Inspection } from './inspection';
import { MovementCard } from './movement-card';
import type { PresetChange } from './parameter-table';

/** What of a preset is more than keys at moments: bounces, springs, sways, paths, framings, drawn lines. */
@Component({
  selector: 'wx-movement-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, MovementCard],
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

  /** Goes on to the formula beside the one that was left. */
  protected goOn(event: 'next' | 'previous'): void {
    const cells = [...this.element.querySelectorAll<HTMLElement>('.cell')];
    const at = cells.indexOf(document.activeElement as HTMLElement);
    cells[at + (event === 'next' ? 1 : -1)]?.focus();
  }
}
