import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatMenuModule } from '@angular/material/menu';
import {
  channelOf,
  compilePreset,
  createShelf,
  lookFromPreset,
  lookPreset,
  perUnit,
  STYLE_PART_FACTS,
  STYLED_COLOURS,
  styledNumbers,
  type ChannelId,
  type ColourPart,
  type KeptLook,
  type PresetProblem,
  type Rate,
} from '@wexikine/core';
import { Icon } from '../icons/icon';
import { LibraryService } from '../library/library.service';
import { completionsFor, type Completion } from './completions';
import { FormulaField } from './formula-field';
import { scopeFor } from './inspection';
import { ParameterTable, type PresetChange } from './parameter-table';

const PAL: Rate = { num: 25, den: 1 };
const SUFFIX = { px: 'px', deg: 'deg', share: '%', number: '' } as const;

/** A change of a look, with its name in the undo list. */
export interface LookChanged {
  readonly label: string;
  readonly body: KeptLook;
  readonly merge?: string;
}

/** The parameters of a look, and what of it hangs on them: numbers by formulas, colours by their names. */
@Component({
  selector: 'wx-look-parameters',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormulaField, Icon, MatMenuModule, ParameterTable],
  templateUrl: './look-parameters.html',
  styles: `
    :host {
      display: block;
      max-width: 760px;
    }
    h2 {
      margin: 18px 0 6px;
      font: 600 15px/1.4 var(--font-text);
    }
    .line {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 6px;
      align-items: end;
      margin-bottom: 8px;
    }
    .tied {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 8px;
      margin-top: 10px;
    }
  `,
})
export class LookParameters {
  readonly look = input.required<KeptLook>();
  readonly changed = output<LookChanged>();

  protected readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly rate = PAL;
  protected readonly preset = computed(() => lookPreset(this.look()));
  private readonly problems = computed((): readonly PresetProblem[] => {
    const result = compilePreset(this.preset(), this.shelf());
    return result.ok ? [] : result.problems;
  });
  protected readonly problemOf = computed(() => {
    const problems = this.problems();
    return (name: string) => problems.find(({ place }) => place.part === 'parameter' && place.name === name);
  });
  protected readonly rows = computed(() =>
    this.preset().rows.map(({ channel, cells: [cell] }) => ({
      channel,
      label: channelOf(channel).label,
      text: cell.value,
      completions: completionsFor(scopeFor(this.preset(), channel), this.preset()) as readonly Completion[],
      problem: this.problemIn(channel),
    })),
  );
  /** Numbers of the look's parts that no formula gives yet. */
  protected readonly free = computed(() => {
    const taken = new Set(this.preset().rows.map(({ channel }) => channel));
    return styledNumbers(this.look().parts)
      .filter((channel) => !taken.has(channel))
      .map((channel) => ({ channel, label: channelOf(channel).label }));
  });
  protected readonly colourNames = computed(() =>
    (this.look().parameters ?? []).filter(({ kind }) => kind === 'colour').map(({ name, label }) => ({ name, label })),
  );
  protected readonly coloured = computed(() =>
    STYLED_COLOURS.filter((part) => this.look().parts.includes(part)).map((part) => ({
      part,
      label: STYLE_PART_FACTS[part].label,
      name: this.look().colours?.[part] ?? '',
    })),
  );

  protected take({ label, preset, merge }: PresetChange): void {
    const body = lookFromPreset(this.look(), preset);
    this.changed.emit({ label, body, ...(merge === undefined ? {} : { merge }) });
  }

  /** A formula begins with the number that stands there. */
  protected add(channel: ChannelId): void {
    const { unit } = channelOf(channel);
    const standing = (this.look().rest[channel] ?? channelOf(channel).default) * perUnit(channel);
    const text = `${Math.round(standing * 1_000) / 1_000}${SUFFIX[unit]}`;
    const formulas = [...(this.look().formulas ?? []), { channel, text }];
    this.changed.emit({ label: `Add a formula for ${channelOf(channel).label}`, body: { ...this.look(), formulas } });
  }

  protected write(channel: ChannelId, text: string): void {
    const formulas = (this.look().formulas ?? []).map((one) => (one.channel === channel ? { channel, text } : one));
    this.changed.emit({
      label: `Set the formula for ${channelOf(channel).label}`,
      body: { ...this.look(), formulas },
      merge: `formula ${channel}`,
    });
  }

  protected remove(channel: ChannelId): void {
    const { formulas = [], ...plain } = this.look();
    const left = formulas.filter((one) => one.channel !== channel);
    const body = left.length > 0 ? { ...plain, formulas: left } : plain;
    this.changed.emit({ label: `Remove the formula for ${channelOf(channel).label}`, body });
  }

  protected tie(part: ColourPart, event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    const { colours = {}, ...plain } = this.look();
    const { [part]: _before, ...others } = colours;
    const next = value === '' ? others : { ...others, [part]: value };
    const body = Object.keys(next).length > 0 ? { ...plain, colours: next } : plain;
    this.changed.emit({ label: `Set the colour of the ${STYLE_PART_FACTS[part].label}`, body });
  }

  private problemIn(channel: ChannelId): string | null {
    const found = this.problems().find(({ place }) => place.part === 'cell' && place.channel === channel);
    return found?.message ?? null;
  }
}
