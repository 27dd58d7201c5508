import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { pathScaled, READY_FOR, READY_PATHS, type Layer } from '@wexikine/core';
import { PathEditor } from '../../fields/path-editor';
import type { SceneLine } from '../../fields/scene-lines';
import type { LayerStep } from '../../looks/layer-step';

const NONE = '';

/** The line that a layer goes along by its way along the path: none, a ready one, one of the scene, or its own. */
@Component({
  selector: 'wx-layer-path',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PathEditor],
  template: `
    <h3>Motion path <small>from where it rests; its channel “way along the path” says how far it is</small></h3>
    <div class="row">
      <select class="text-field" aria-label="Motion path" (change)="choose($event)">
        <option [value]="none" [selected]="!path()">none</option>
        @if (path() && readyId() === null) {
          <option value="own" selected>a line of its own</option>
        }
        <optgroup label="Ready lines">
          @for (ready of ready; track ready.id) {
            <option [value]="ready.id" [selected]="ready.id === readyId()">{{ ready.name }}</option>
          }
        </optgroup>
        @if (others().length > 0) {
          <optgroup label="Lines of the scene">
            @for (line of others(); track $index) {
              <option [value]="'line-' + $index">{{ line.name }}</option>
            }
          </optgroup>
        }
      </select>
      @if (path(); as own) {
        <label><input type="checkbox" [checked]="own.turns" (change)="turn()" /> turns with it</label>
      }
    </div>
    @if (path(); as own) {
      <wx-path-editor [d]="own.d" (changed)="set($event, own.turns)" />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      margin-top: 14px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
    }
    select {
      width: auto;
      max-width: 220px;
    }
    label {
      display: inline-flex;
      align-items: center;
      gap: 5px;
      font-size: 13px;
    }
    h3 {
      font: 600 13px/1.5 var(--font-text);
    }
    small {
      font-weight: 400;
      color: var(--ink-soft);
      margin-left: 6px;
    }
  `,
})
export class LayerPath {
  readonly layer = input.required<Layer>();
  readonly lines = input.required<readonly SceneLine[]>();
  /** Width of the scene's frame, in px. */
  readonly width = input.required<number>();
  readonly step = output<LayerStep>();

  protected readonly none = NONE;
  protected readonly ready = READY_PATHS;
  protected readonly path = computed(() => this.layer().path ?? null);
  /** Ready lines at the size of this frame. */
  private readonly fitted = computed(() =>
    READY_PATHS.map((ready) => ({ ...ready, d: pathScaled(ready.d, this.width() / READY_FOR) })),
  );
  protected readonly readyId = computed(() => this.fitted().find(({ d }) => d === this.path()?.d)?.id ?? null);
  /** Its own outline is no line to go along. */
  protected readonly others = computed(() => this.lines().filter(({ name }) => name !== this.layer().name));

  protected choose(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    if (value === NONE) return this.give(null);
    const ready = this.fitted().find(({ id }) => id === value);
    const line = this.others()[Number(value.slice('line-'.length))];
    const d = ready?.d ?? line?.d;
    if (d === undefined) return;
    // A line that comes in ends where the layer rests: at rest it has gone all the way, so that nothing jumps.
    const { rest } = this.layer();
    const distance = ready?.fit === 'in' ? 1 : 0;
    this.give({ d, turns: this.path()?.turns ?? false }, { rest: { ...rest, 'path.distance': distance } });
  }

  protected turn(): void {
    const path = this.path();
    if (path) this.set(path.d, !path.turns);
  }

  protected set(d: string, turns: boolean): void {
    this.give({ d, turns });
  }

  private give(path: Layer['path'], more: Partial<Layer> = {}): void {
    const { id, name } = this.layer();
    const label = path ? `Motion path of “${name}”` : `Take away the motion path of “${name}”`;
    this.step.emit({ label, edits: [{ type: 'set-layer', layer: id, fields: { path: path ?? null, ...more } }] });
  }
}
