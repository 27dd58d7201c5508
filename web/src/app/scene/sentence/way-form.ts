import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { formatShort, type Scene, type Shelf } from '@wexikine/core';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';
import { ChoiceEditor } from './choice-editor';
import { isInTwo } from './choices';
import { MomentField } from './moment-field';
import type { Way, WayField, WayValue } from './way-fields';
import { beginWay, checkOf, firstTyped, hintOf, nextSeed, textOf, valueOf, withField } from './way-values';

const GENTLE = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;
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
  protected readonly firstKey = computed(() => firstTyped(this.fields()));
  protected readonly playheadText = computed(() => formatShort(this.playhead(), this.scene().rate));
  protected readonly columns = computed(() => [
    ...new Set(this.scene().layers.flatMap(({ data }) => Object.keys(data))),
  ]);
  protected readonly checks = computed(() => {
    const { rate } = this.scene();
    return new Map(this.fields().map((field) => [field.key, checkOf(field, rate)]));
  });

  protected choose(by: string): void {
    const chosen = this.ways().find(({ value }) => value === by);
    this.changed.emit(
      beginWay(by, { begin: chosen?.begin ?? {} }, this.value(), this.shared(), (key) => this.first(key)),
    );
  }

  protected text(field: WayField): string {
    return textOf(field, this.value());
  }

  protected hint(field: WayField): string | null {
    return hintOf(field, this.text(field), this.scene().rate);
  }

  protected give(field: WayField, text: string): void {
    this.set(field, valueOf(field, text));
  }

  protected set({ key }: WayField, value: unknown): void {
    this.changed.emit(withField(this.value(), key, value));
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
    this.set(field, nextSeed(this.value()[field.key]));
  }

  protected read(event: Event): string {
    return (event.target as HTMLSelectElement).value;
  }

  /** What a field begins with that depends on the scene: the playhead, the first cue, the first column. */
  private first(key: string): string {
    if (key === 'cue') return this.scene().cues[0]?.name ?? 'none';
    return key === 'column' ? (this.columns()[0] ?? 'none') : this.playheadText();
  }
}
