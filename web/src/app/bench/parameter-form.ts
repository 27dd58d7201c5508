import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  changeKind,
  changeParameter,
  houseTypeFor,
  isNumberKind,
  nameFrom,
  nameProblem,
  PARAMETER_KINDS,
  renameOption,
  renameParameter,
  type HouseItem,
  type Parameter,
  type ParameterKind,
  type ParameterOption,
  type Preset,
  type Rate,
  type Shelf,
} from '@wexikine/core';
import { parameterCheck } from '../fields/checks';
import { ParameterValue } from '../fields/parameter-value';
import { ValueField } from '../fields/value-field';
import { Icon } from '../icons/icon';
import type { PresetChange } from './parameter-table';

type Limit = 'min' | 'max' | 'from' | 'to' | 'step';

const LIMITS: readonly { readonly field: Limit; readonly label: string }[] = [
  { field: 'from', label: 'Slider from' },
  { field: 'to', label: 'Slider to' },
  { field: 'step', label: 'Step' },
  { field: 'min', label: 'Least (hard)' },
  { field: 'max', label: 'Greatest (hard)' },
];

/** All of one parameter: names, kind, default or the house value it follows, limits, options, group and note. */
@Component({
  selector: 'wx-parameter-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ParameterValue, ValueField],
  templateUrl: './parameter-form.html',
  styleUrl: './parameter-form.scss',
})
export class ParameterForm {
  readonly preset = input.required<Preset>();
  readonly parameter = input.required<Parameter>();
  readonly shelf = input.required<Shelf>();
  readonly rate = input.required<Rate>();
  /** Whether a time can be the length of what it belongs to: of a preset, not of a rig. */
  readonly hasLength = input(true);
  readonly changed = output<{ readonly change: PresetChange; readonly renamedTo: string | null }>();

  protected readonly kinds = PARAMETER_KINDS;
  protected readonly limits = LIMITS;
  protected readonly nameProblem = signal<string | null>(null);
  protected readonly isNumber = computed(() => {
    const { kind } = this.parameter();
    return isNumberKind(kind) && kind !== 'switch';
  });
  protected readonly isLength = computed(() => this.preset().lasts === this.parameter().name);
  private readonly check = computed(() => parameterCheck(this.parameter(), this.shelf()));
  /** A limit may be left empty. */
  protected readonly limitCheck = computed(() => {
    const check = this.check();
    return (text: string): string | null => (text.trim() === '' ? null : check(text));
  });
  protected readonly houseChoices = computed((): readonly HouseItem[] => {
    const type = houseTypeFor(this.parameter().kind);
    return [...this.shelf().items.values()].filter(
      (item): item is HouseItem =>
        item.kind === 'house' &&
        item.body.type === type &&
        (item.state !== 'retired' || item.id === this.parameter().house),
    );
  });
  protected readonly canBeTied = computed(() => houseTypeFor(this.parameter().kind) !== null);

  protected set(field: keyof Parameter, value: string): void {
    const { name } = this.parameter();
    const isOptional = field !== 'label' && field !== 'default' && field !== 'note';
    const fields = { [field]: isOptional && value.trim() === '' ? undefined : value };
    this.give(`Change @${name}`, changeParameter(this.preset(), name, fields), `${name} ${field}`);
  }

  protected setLabel(event: Event): void {
    const label = (event.target as HTMLInputElement).value;
    if (label.trim() !== '') this.set('label', label);
  }

  protected rename(event: Event): void {
    const field = event.target as HTMLInputElement;
    const from = this.parameter().name;
    const to = field.value.trim().replace(/^@/, '');
    const problem = nameProblem(this.preset(), from, to);
    this.nameProblem.set(problem);
    if (problem !== null || from === to) return;
    const preset = renameParameter(this.preset(), from, to);
    this.changed.emit({ change: { label: `Rename @${from} to @${to}`, preset }, renamedTo: to });
  }

  protected setKind(event: Event): void {
    const kind = (event.target as HTMLSelectElement).value as ParameterKind;
    const { name } = this.parameter();
    this.give(`Make @${name} a ${kind}`, changeKind(this.preset(), name, kind));
  }

  /** Ties the default to a house value, whose value it takes from now on; or unties it, keeping that value. */
  protected setHouse(event: Event): void {
    const id = (event.target as HTMLSelectElement).value;
    const { name } = this.parameter();
    const standing = this.parameter().house;
    const text = this.shelf().houseText(id === '' ? (standing ?? '') : id)?.text ?? this.parameter().default;
    const fields = { house: id === '' ? undefined : id, default: text };
    this.give(`Change @${name}`, changeParameter(this.preset(), name, fields));
  }

  protected setLength(event: Event): void {
    const { lasts: _lasts, ...rest } = this.preset();
    const isOn = (event.target as HTMLInputElement).checked;
    const { name } = this.parameter();
    this.give(`Change the length`, isOn ? { ...rest, lasts: name } : rest);
  }

  protected setOption(option: ParameterOption, event: Event): void {
    const label = (event.target as HTMLInputElement).value.trim();
    const { name, options = [] } = this.parameter();
    if (label === '' || label === option.label) return;
    const taken = options.filter((other) => other !== option).map((other) => other.name);
    const wanted = nameFrom(label);
    const renamed = taken.includes(wanted) ? this.preset() : renameOption(this.preset(), name, option.name, wanted);
    const to = taken.includes(wanted) ? option.name : wanted;
    const standing = renamed.parameters.find((entry) => entry.name === name)?.options ?? [];
    const next = standing.map((entry) => (entry.name === to ? { ...entry, label } : entry));
    this.give(`Change @${name}`, changeParameter(renamed, name, { options: next }));
  }

  protected addOption(): void {
    const { name, options = [] } = this.parameter();
    let number = options.length + 1;
    while (options.some((option) => option.name === `option${number}`)) number++;
    const next = [...options, { name: `option${number}`, label: `Option ${number}` }];
    this.give(`Change @${name}`, changeParameter(this.preset(), name, { options: next }));
  }

  protected removeOption({ name: gone }: ParameterOption): void {
    const { name, options = [], default: standard } = this.parameter();
    const next = options.filter((option) => option.name !== gone);
    const fields = { options: next, default: standard === gone ? next[0].name : standard };
    this.give(`Change @${name}`, changeParameter(this.preset(), name, fields));
  }

  private give(label: string, preset: Preset, merge?: string): void {
    this.changed.emit({ change: merge === undefined ? { label, preset } : { label, preset, merge }, renamedTo: null });
  }
}
