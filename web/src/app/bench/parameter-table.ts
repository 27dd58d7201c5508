import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import {
  addParameter,
  canInline,
  isNumberKind,
  literalWords,
  moveParameter,
  PARAMETER_KINDS,
  parameterUses,
  removeParameter,
  type Parameter,
  type ParameterKind,
  type Preset,
  type PresetProblem,
  type Rate,
  type Shelf,
} from '@wexikine/core';
import { Icon } from '../icons/icon';
import { ParameterForm } from './parameter-form';
import { RemoveParameterDialog, type RemoveQuestion } from './dialogs/remove-parameter-dialog';

/** A change of a preset, with its name in the undo list. */
export interface PresetChange {
  readonly label: string;
  readonly preset: Preset;
  readonly merge?: string;
}

/** The parameters of a preset: one line each, and a form below the one that is open. */
@Component({
  selector: 'wx-parameter-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, ParameterForm],
  templateUrl: './parameter-table.html',
  styleUrl: './parameter-table.scss',
})
export class ParameterTable {
  readonly preset = input.required<Preset>();
  readonly shelf = input.required<Shelf>();
  readonly rate = input.required<Rate>();
  readonly problemOf = input.required<(name: string) => PresetProblem | undefined>();
  readonly changed = output<PresetChange>();

  private readonly dialog = inject(MatDialog);
  protected readonly kinds = PARAMETER_KINDS;
  protected readonly open = signal<string | null>(null);

  /** Parameters with the heading that each begins, if it does. */
  protected readonly lines = computed(() => {
    const { parameters } = this.preset();
    return parameters.map((parameter, i) => {
      const before = parameters[i - 1]?.group;
      return { parameter, heading: parameter.group !== before ? (parameter.group ?? null) : null };
    });
  });

  protected toggle(name: string): void {
    this.open.update((open) => (open === name ? null : name));
  }

  protected add(kind: ParameterKind): void {
    const preset = addParameter(this.preset(), kind);
    const added = preset.parameters[preset.parameters.length - 1];
    this.changed.emit({ label: `Add @${added.name}`, preset });
    this.open.set(added.name);
  }

  protected move({ name }: Parameter, by: number): void {
    this.changed.emit({ label: `Move @${name}`, preset: moveParameter(this.preset(), name, by) });
  }

  /** A form follows its parameter when that gets another name. */
  protected formChanged(change: PresetChange, renamedTo: string | null): void {
    this.changed.emit(change);
    if (renamedTo !== null) this.open.set(renamedTo);
  }

  protected remove(parameter: Parameter): void {
    const uses = parameterUses(this.preset(), parameter.name);
    if (uses.length === 0) return this.removeNow(parameter);
    const data: RemoveQuestion = { parameter, uses, canInline: canInline(this.preset(), parameter.name) };
    this.dialog
      .open<RemoveParameterDialog, RemoveQuestion, boolean>(RemoveParameterDialog, { data, width: '460px' })
      .afterClosed()
      .subscribe((isSure) => {
        if (isSure === true) this.removeNow(parameter);
      });
  }

  protected defaultWords(parameter: Parameter): string {
    const { house, kind, options } = parameter;
    const text = (house === undefined ? null : this.shelf().houseText(house)?.text) ?? parameter.default;
    if (kind === 'choice') return options?.find(({ name }) => name === text)?.label ?? text;
    const curve = kind === 'curve' ? /^curve\s+(\S+)$/.exec(text)?.[1] : undefined;
    if (curve !== undefined) return this.shelf().items.get(curve)?.name ?? text;
    return isNumberKind(kind) ? literalWords(text) : text;
  }

  protected houseName({ house }: Parameter): string | null {
    return house === undefined ? null : (this.shelf().items.get(house)?.name ?? house);
  }

  protected rangeWords({ min, max, from, to, kind, options }: Parameter): string {
    if (kind === 'choice') return (options ?? []).map(({ label }) => label).join(', ');
    const [low, high] = [from ?? min, to ?? max];
    if (low === undefined && high === undefined) return '';
    return `${literalWords(low ?? '…')} – ${literalWords(high ?? '…')}`;
  }

  private removeNow({ name }: Parameter): void {
    this.changed.emit({ label: `Remove @${name}`, preset: removeParameter(this.preset(), name) });
    if (this.open() === name) this.open.set(null);
  }
}
