import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addMoment,
  changeMoment,
  duplicateMoment,
  moveMoment,
  removeMoment,
  type Moment,
  type Preset,
} from '@wexikine/core';
import { Icon } from '../icons/icon';
import type { PresetChange } from './parameter-table';

/** The head of a moment's column: its name, and what can be done with it. */
@Component({
  selector: 'wx-moment-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  templateUrl: './moment-head.html',
  styleUrl: './moment-head.scss',
  host: { role: 'columnheader' },
})
export class MomentHead {
  readonly preset = input.required<Preset>();
  readonly moment = input.required<Moment>();
  readonly isFirst = input.required<boolean>();
  readonly isLast = input.required<boolean>();
  readonly changed = output<PresetChange>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly isRenaming = signal(false);

  protected addAfter(): void {
    const name = `Moment ${this.preset().moments.length}`;
    this.change(`Add the moment ${name}`, addMoment(this.preset(), this.moment().id, name, this.moment().at));
  }

  protected duplicate(): void {
    this.change(`Duplicate ${this.moment().name}`, duplicateMoment(this.preset(), this.moment().id));
  }

  protected shift(by: number): void {
    this.change(`Move ${this.moment().name}`, moveMoment(this.preset(), this.moment().id, by));
  }

  protected remove(): void {
    this.change(`Remove ${this.moment().name}`, removeMoment(this.preset(), this.moment().id));
  }

  protected startRename(): void {
    this.isRenaming.set(true);
    setTimeout(() => this.element.querySelector<HTMLInputElement>('.rename')?.select());
  }

  protected rename(event: Event): void {
    if (!this.isRenaming()) return;
    this.isRenaming.set(false);
    const name = (event.target as HTMLInputElement).value.trim();
    const { id, name: before } = this.moment();
    if (name !== '' && name !== before) this.change(`Rename ${before}`, changeMoment(this.preset(), id, { name }));
  }

  private change(label: string, preset: Preset): void {
    this.changed.emit({ label, preset });
  }
}
