import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  addParameter,
  dialNumber,
  dialText,
  freeName,
  literalWords,
  moveParameter,
  PARAMETER_KINDS,
  parameterUses,
  removeParameter,
  renameRole,
  rigAsPreset,
  rigFromPreset,
  type Parameter,
  type ParameterKind,
  type Preset,
  type Rate,
  type Rig,
  type Shelf,
} from '@wexikine/core';
import { Knob } from '../fields/knob';
import { Icon } from '../icons/icon';
import { LibraryActions } from '../library/library-actions.service';
import { ParameterForm } from './parameter-form';
import type { PresetChange } from './parameter-table';
import type { RigChange } from './rig-change';

/** The dials of a rig with their knobs, and the parts that layers play in it. */
@Component({
  selector: 'wx-rig-dials',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, Knob, MatMenuModule, ParameterForm],
  templateUrl: './rig-dials.html',
  styleUrl: './rig-dials.scss',
})
export class RigDials {
  readonly rig = input.required<Rig>();
  readonly shelf = input.required<Shelf>();
  readonly rate = input.required<Rate>();
  readonly changed = output<RigChange>();

  private readonly actions = inject(LibraryActions);
  protected readonly kinds = PARAMETER_KINDS;
  protected readonly asPreset = computed(() => rigAsPreset(this.rig()));
  /** The dial whose form is open. */
  protected readonly open = signal<string | null>(null);

  protected readonly dials = computed(() =>
    this.rig().dials.map((dial) => {
      const value = dialNumber(dial, dial.default, this.rate());
      const from = dialNumber(dial, dial.from ?? dial.min, this.rate());
      const to = dialNumber(dial, dial.to ?? dial.max, this.rate());
      const isTurned = value !== null && from !== null && to !== null && dial.house === undefined;
      return {
        dial,
        value,
        from,
        to,
        isTurned,
        step: dialNumber(dial, dial.step, this.rate()),
        words: literalWords(dial.default),
      };
    }),
  );

  protected roleUses(name: string): boolean {
    return this.rig().formulas.some(({ text }) => new RegExp(`(?<![\\w.@])${name}\\.`).test(text));
  }

  protected toggle(name: string): void {
    this.open.update((open) => (open === name ? null : name));
  }

  protected turn({ name, kind, label }: Parameter, value: number): void {
    const dials = this.rig().dials.map((dial) =>
      dial.name === name ? { ...dial, default: dialText({ kind }, value, this.rate()) } : dial,
    );
    this.give(`Turn ${label}`, { ...this.rig(), dials }, `turn ${name}`);
  }

  protected addDial(kind: ParameterKind): void {
    const preset = addParameter(this.asPreset(), kind);
    this.takePreset({ label: 'Add a dial', preset });
    this.open.set(preset.parameters[preset.parameters.length - 1].name);
  }

  protected moveDial({ name }: Parameter, by: number): void {
    this.takePreset({ label: `Move @${name}`, preset: moveParameter(this.asPreset(), name, by) });
  }

  /** Takes a dial away; where formulas read it, its default stands in for it. */
  protected removeDial({ name }: Parameter): void {
    const uses = parameterUses(this.asPreset(), name).length;
    this.takePreset({ label: `Remove @${name}`, preset: removeParameter(this.asPreset(), name) });
    if (uses > 0)
      this.actions.tell(
        `@${name} was read by ${uses === 1 ? 'one formula' : `${uses} formulas`}; its default stands there now.`,
      );
  }

  protected formChanged(change: PresetChange, renamedTo: string | null): void {
    this.takePreset(change);
    if (renamedTo !== null) this.open.set(renamedTo);
  }

  private takePreset({ label, preset, merge }: { label: string; preset: Preset; merge?: string }): void {
    this.give(label, rigFromPreset(this.rig(), preset), merge);
  }

  protected addRole(): void {
    const name = freeName('leader', ['each', 'before', ...this.rig().roles.map((role) => role.name)]);
    const roles = [...this.rig().roles, { name, note: '' }];
    this.give(`Add the part ${name}`, { ...this.rig(), roles });
  }

  protected renameRole(from: string, event: Event): void {
    const to = (event.target as HTMLInputElement).value;
    this.give(`Rename ${from}`, renameRole(this.rig(), from, to));
  }

  protected noteRole(name: string, event: Event): void {
    const note = (event.target as HTMLInputElement).value;
    const roles = this.rig().roles.map((role) => (role.name === name ? { ...role, note } : role));
    this.give(`Say what ${name} is`, { ...this.rig(), roles }, `note ${name}`);
  }

  protected removeRole(name: string): void {
    this.give(`Remove the part ${name}`, {
      ...this.rig(),
      roles: this.rig().roles.filter((role) => role.name !== name),
    });
  }

  private give(label: string, rig: Rig, merge?: string): void {
    this.changed.emit(merge === undefined ? { label, rig } : { label, rig, merge });
  }
}
