import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Layer } from '@wexikine/core';
import type { LayerStep } from '../../looks/layer-step';

/** Longest name and value of a data column, as the scene's schema has them. */
const NAME_LENGTH = 60;
const VALUE_LENGTH = 2_000;

/** A layer's data with one value set; an empty text takes it away. */
export function withValue(data: Layer['data'], column: string, text: string): Layer['data'] {
  const { [column]: _before, ...others } = data;
  return text === '' ? others : { ...others, [column]: text };
}

/** The data of one layer: a field for each column that the scene has, and one for a new column. */
@Component({
  selector: 'wx-layer-data',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Data <small>for orders, picks and parameters that follow a column</small></h3>
    <div class="columns">
      @for (entry of entries(); track entry.column) {
        <label class="field-label"
          ><span [title]="entry.column">{{ entry.column }}</span>
          <input
            class="text-field"
            [maxLength]="longest"
            [value]="entry.text"
            placeholder="none"
            (change)="set(entry.column, $event)"
          />
        </label>
      }
      <label class="field-label"
        >New column
        <input
          class="text-field"
          [maxLength]="longestName"
          placeholder="its name"
          aria-describedby="new-column-help"
          #name
          (keydown.enter)="value.focus()"
        />
      </label>
      <label class="field-label"
        >Its value here
        <input class="text-field" [maxLength]="longest" #value (change)="add(name, value)" />
      </label>
    </div>
    <span class="visually-hidden" id="new-column-help">The column is made when its value is given.</span>
  `,
  styles: `
    h3 {
      font: 600 13px/1.4 var(--font-text);
      margin: 12px 0 6px;
    }
    small {
      font-weight: 400;
      color: var(--ink-soft);
      margin-left: 6px;
    }
    .columns {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 8px;
    }
    span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class LayerData {
  readonly layer = input.required<Layer>();
  /** Data columns of the whole scene. */
  readonly columns = input.required<readonly string[]>();
  readonly step = output<LayerStep>();

  protected readonly longest = VALUE_LENGTH;
  protected readonly longestName = NAME_LENGTH;
  protected readonly entries = computed(() => {
    const { data } = this.layer();
    return this.columns().map((column) => ({ column, text: String(data[column] ?? '') }));
  });

  protected set(column: string, event: Event): void {
    this.change(column, (event.target as HTMLInputElement).value.trim());
  }

  protected add(name: HTMLInputElement, value: HTMLInputElement): void {
    const [column, text] = [name.value.trim(), value.value.trim()];
    if (column === '' || text === '') return;
    name.value = '';
    value.value = '';
    this.change(column, text);
  }

  private change(column: string, text: string): void {
    const { id, name, data } = this.layer();
    if (String(data[column] ?? '') === text) return;
    const label = text === '' ? `Take ${column} from “${name}”` : `Set ${column} of “${name}”`;
    this.step.emit({
      label,
      edits: [{ type: 'set-layer', layer: id, fields: { data: withValue(data, column, text) } }],
    });
  }
}
