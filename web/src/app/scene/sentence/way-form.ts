import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  formatShort,
  frameTicks,
  parseTimeEntry,
  pathProblem,
  type Rate,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';
import { ChoiceEditor } from './choice-editor';
import { isInTwo } from './choices';
import { MomentField } from './moment-field';
import type { Way, WayField, WayValue } from './way-fields';

const MOST_SEED = 10_000;
const GENTLE = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;
const PATTERNS: Readonly<Partial<Record<WayField['kind'], readonly [RegExp, string]>>> = {
  percent: [/^-?\d+(\.\d+)?\s*%?$/, 'Give a percentage such as 50%.'],
  degrees: [/^-?\d+(\.\d+)?\s*(deg|°)?$/, 'Give an angle such as 45deg.'],
  pixels: [/^-?\d+(\.\d+)?\s*(px)?$/, 'Give a length such as 24px.'],
  number: [/^\d+(\.\d+)?$/, 'Give a number such as 2.'],
  count: [/^\d+$/, 'Give a whole number such as 3.'],
  path: [/^\s*M[\sMLHVCSQTAZmlhvcsqtaz\d.,eE+-]*$/, 'Give an SVG path such as M0 0 L400 300.'],
};
const UNITS: Readonly<Partial<Record<WayField['kind'], string>>> = { percent: '%', degrees: 'deg', pixels: 'px' };

const TYPED: ReadonlySet<WayField['kind']> = new Set([
  'time',
  'signed-time',
  'number',
  'count',
  'percent',
  'degrees',
  'pixels',
]);

/** The nearest frame, said where a typed time falls between two. */
function roundingHint(text: string, rate: Rate): string | null {
  const result = parseTimeEntry(text, rate);
  if (!result.ok || result.entry.rounding === 0) return null;
  const off = Number((result.entry.rounding / frameTicks(rate)).toFixed(2));
  return `Nearest frame ${result.entry.frame}; this is ${Math.abs(off)} f ${off > 0 ? 'after' : 'before'} it.`;
}

/** One of several ways to say something, with the fields of the chosen one. */
@Component({
  selector: 'wx-way-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.wide]': 'isWide()' },
  imports: [ChoiceEditor, EasingEditor, Icon, MomentField, ValueField],
  template: `
    <wx-choice-editor [label]="label()" [choices]="ways()" [value]="value().by" (chosen)="choose($event)" />
    @for (field of fields(); track field.key) {
      @switch (field.kind) {
        @case ('choice') {
          <label class="field-label"
            >{{ field.label }}
            <select class="text-field" (change)="set(field, read($event))">
              @for (option of field.options ?? []; track option[0]) {
                <option [value]="option[0]" [selected]="option[0] === value()[field.key]">{{ option[1] }}</option>
              }
            </select>
          </label>
        }
        @case ('switch') {
          <label class="choice"
            ><input type="checkbox" [checked]="value()[field.key] === true" (change)="flip(field)" /><span>{{
              field.label
            }}</span></label
          >
        }
        @case ('seed') {
          <button class="wx-button" type="button" (click)="roll(field)">
            <wx-icon name="casino" />Roll again (seed {{ value()[field.key] }})
          </button>
        }
        @case ('column') {
          <label class="field-label"
            >{{ field.label }}
            <select class="text-field" (change)="set(field, read($event))">
              @for (column of columns(); track column) {
                <option [value]="column" [selected]="column === value()[field.key]">{{ column }}</option>
              } @empty {
                <option value="">no layer has data yet</option>
              }
            </select>
          </label>
        }
        @case ('cue') {
          <label class="field-label"
            >{{ field.label }}
            <select class="text-field" (change)="set(field, read($event))">
              @for (cue of scene().cues; track cue.id) {
                <option [value]="cue.name" [selected]="cue.name === value()[field.key]">{{ cue.name }}</option>
              } @empty {
                <option value="">the scene has no cues yet</option>
              }
            </select>
          </label>
        }
        @case ('curve') {
          <label class="choice"
            ><input type="checkbox" [checked]="value()[field.key] !== undefined" (change)="flipCurve(field)" /><span>{{
              field.label
            }}</span></label
          >
          @if (curve(field); as ease) {
            <wx-easing-editor [ease]="ease" [shelf]="shelf()" [canRefer]="false" (changed)="set(field, $event)" />
          }
        }
        @case ('moment') {
          <wx-moment-field
            [label]="field.label"
            [value]="moment(field)"
            [scene]="scene()"
            [playhead]="playhead()"
            (changed)="set(field, $event)"
          />
        }
        @case ('edge') {
          <wx-moment-field
            [label]="field.label"
            [value]="moment(field)"
            [scene]="scene()"
            [playhead]="playhead()"
            [withEdges]="true"
            (changed)="set(field, $event)"
          />
        }
        @default {
          <wx-value-field
            [label]="field.label"
            [value]="text(field)"
            [rate]="scene().rate"
            [isFirst]="field.key === firstKey()"
            [least]="field.least ?? (field.kind === 'signed-time' || field.kind === 'degrees' ? -10000 : 0)"
            [check]="checks().get(field.key)!"
            [hint]="hint(field)"
            (changed)="give(field, $event)"
          />
          @if (field.key === 'at' && field.kind === 'time') {
            <button class="wx-button" type="button" (click)="set(field, playheadText())">
              At the playhead, {{ playheadText() }}
            </button>
          }
        }
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 280px;
    }
    /* As wide as choices in two columns. */
    :host(.wide) {
      width: 372px;
    }
  `,
})
export class WayForm {
  readonly label = input.required<string>();
  readonly ways = input.required<readonly Way[]>();
  /** Fields that stand beside those of every way. */
  readonly shared = input<readonly WayField[]>([]);
  readonly value = input.required<WayValue>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly playhead = input.required<number>();
  readonly changed = output<WayValue>();

  protected readonly isWide = computed(() => isInTwo(this.ways()));
  protected readonly fields = computed(() => [
    ...(this.ways().find(({ value }) => value === this.value().by)?.fields ?? []),
    ...this.shared(),
  ]);
  /** The first field that is typed into has the focus, with its number selected. */
  protected readonly firstKey = computed(() => this.fields().find(({ kind }) => TYPED.has(kind))?.key);
  protected readonly playheadText = computed(() => formatShort(this.playhead(), this.scene().rate));
  protected readonly columns = computed(() => [
    ...new Set(this.scene().layers.flatMap(({ data }) => Object.keys(data))),
  ]);
  protected readonly checks = computed(() => new Map(this.fields().map((field) => [field.key, this.checkOf(field)])));

  protected choose(by: string): void {
    const chosen = this.ways().find(({ value }) => value === by);
    const shared = this.shared().flatMap(({ key }) => (key in this.value() ? [[key, this.value()[key]] as const] : []));
    const begin = Object.entries(chosen?.begin ?? {}).map(([key, value]) => [
      key,
      value === '' ? this.first(key) : value,
    ]);
    this.changed.emit({ by, ...Object.fromEntries(begin), ...Object.fromEntries(shared) });
  }

  protected text(field: WayField): string {
    const value = this.value()[field.key];
    if (value === undefined) return '';
    if (typeof value === 'number')
      return `${Number((field.kind === 'percent' ? value * 100 : value).toFixed(3))}${UNITS[field.kind] ?? ''}`;
    return String(value);
  }

  protected hint(field: WayField): string | null {
    const text = this.text(field);
    if (text === '') return field.empty ?? null;
    return field.kind === 'time' || field.kind === 'signed-time' ? roundingHint(text, this.scene().rate) : null;
  }

  protected give(field: WayField, text: string): void {
    if (field.kind === 'time' || field.kind === 'signed-time' || field.kind === 'path')
      return this.set(field, text.trim());
    if (text.trim() === '') return this.set(field, undefined);
    const number = Number.parseFloat(text);
    this.set(field, field.kind === 'percent' ? number / 100 : number);
  }

  protected set({ key }: WayField, value: unknown): void {
    const { [key]: _standing, ...rest } = this.value();
    this.changed.emit((value === undefined ? rest : { ...rest, [key]: value }) as WayValue);
  }

  protected flip(field: WayField): void {
    const isOn = this.value()[field.key] === true;
    this.set(field, isOn ? (field.optional ? undefined : false) : true);
  }

  protected flipCurve(field: WayField): void {
    this.set(field, this.value()[field.key] === undefined ? GENTLE : undefined);
  }

  protected curve(field: WayField) {
    return this.value()[field.key] as never;
  }

  protected moment(field: WayField) {
    return this.value()[field.key] as never;
  }

  protected roll(field: WayField): void {
    this.set(field, (Number(this.value()[field.key]) % MOST_SEED) + 1);
  }

  protected read(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  /** What a field begins with that depends on the scene: the playhead, the first cue, the first column. */
  private first(key: string): string {
    if (key === 'cue') return this.scene().cues[0]?.name ?? 'none';
    return key === 'column' ? (this.columns()[0] ?? 'none') : this.playheadText();
  }

  private checkOf(field: WayField): (text: string) => string | null {
    const { rate } = this.scene();
    if (field.kind === 'time') return timeCheck(rate, (field.least ?? 0) * frameTicks(rate));
    if (field.kind === 'signed-time') return timeCheck(rate, -Infinity);
    const [pattern, message] = PATTERNS[field.kind] ?? [/^/, ''];
    return (text) => {
      if (text.trim() === '' && field.optional) return null;
      if (!pattern.test(text.trim())) return message;
      if (field.kind === 'path') return pathProblem(text.trim());
      const [least, most] = [field.least ?? -Infinity, field.most ?? Infinity];
      const number = Number.parseFloat(text);
      if (number >= least && number <= most) return null;
      return most === Infinity ? `Give ${least} or more.` : `Give a number from ${least} to ${most}.`;
    };
  }
}
