import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  conditionsOf,
  copyRow,
  linkedChannels,
  moveRows,
  removeRows,
  setCell,
  setCondition,
  type ChannelId,
  type Preset,
  type RowGroup,
} from '@wexikine/core';
import { inFamilies } from '../fields/in-families';
import { Icon } from '../icons/icon';
import type { PresetChange } from './parameter-table';

/** Channels that may have a row, under one name. */
export interface RowChoice {
  readonly label: string;
  readonly channels: readonly ChannelId[];
}

/** The head of a row of channels: its name, when it counts, and what can be done with it. */
@Component({
  selector: 'wx-row-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  templateUrl: './row-head.html',
  styleUrl: './row-head.scss',
  host: { role: 'rowheader' },
})
export class RowHead {
  readonly preset = input.required<Preset>();
  readonly group = input.required<RowGroup>();
  /** Channels that have no row yet. */
  readonly choices = input.required<readonly RowChoice[]>();
  readonly isFirst = input.required<boolean>();
  readonly isLast = input.required<boolean>();
  readonly changed = output<PresetChange>();

  protected readonly families = computed(() => inFamilies(this.choices(), ({ channels }) => channels[0]));
  protected readonly conditions = computed(() => conditionsOf(this.preset().parameters));
  /** Channels that a single one could be keyed together with. */
  protected readonly partners = computed((): readonly ChannelId[] => {
    const { channels } = this.group();
    return channels.length > 1 ? [] : linkedChannels(channels[0]).filter((id) => id !== channels[0]);
  });

  protected remove(): void {
    this.change(`Remove ${this.group().label}`, removeRows(this.preset(), this.group().channels));
  }

  protected move(by: number): void {
    this.change(`Move ${this.group().label}`, moveRows(this.preset(), this.group().channels, by));
  }

  protected setWhen(when: string | null): void {
    this.change(`When ${this.group().label} counts`, setCondition(this.preset(), this.group().channels, when));
  }

  protected copyTo(channels: readonly ChannelId[], label: string): void {
    const { label: own, channels: from } = this.group();
    this.change(`Copy ${own} to ${label}`, copyRow(this.preset(), from[0], channels));
  }

  /** Lets linked channels go their own ways: the last one gets a cell text of its own, the same value in brackets. */
  protected unlink(): void {
    const { channels, row, label } = this.group();
    const [first] = row.cells;
    if (!first) return;
    const last = channels[channels.length - 1];
    this.change(`Key ${label} apart`, setCell(this.preset(), [last], first.moment, `(${first.value})`));
  }

  private change(label: string, preset: Preset): void {
    this.changed.emit({ label, preset });
  }
}
