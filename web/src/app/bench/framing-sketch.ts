import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { compilePreset, coveringFraming, type MovementOf, type Preset } from '@wexikine/core';

const WIDTH = 160;
const HEIGHT = 90;

/** The framings of a movement as boxes on a picture, with the parameters at their defaults. */
@Component({
  selector: 'wx-framing-sketch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="box" role="img" [attr.aria-label]="words()">
      <rect class="picture" width="160" height="90" />
      @for (frame of frames(); track $index) {
        <rect
          class="frame"
          [attr.x]="frame.x"
          [attr.y]="frame.y"
          [attr.width]="frame.width"
          [attr.height]="frame.height"
        />
        <text text-anchor="middle" [attr.x]="frame.x + frame.width / 2" [attr.y]="frame.y + frame.height / 2 + 4">
          {{ $index + 1 }}
        </text>
      }
    </svg>
  `,
  styles: `
    svg {
      width: 220px;
      display: block;
    }
    .picture {
      fill: var(--paper-low);
      stroke: var(--line-strong);
    }
    .frame {
      fill: none;
      stroke: var(--pine);
      stroke-width: 1.6;
    }
    text {
      font: 600 10px var(--font-mono);
      fill: var(--pine);
    }
  `,
})
export class FramingSketch {
  readonly movement = input.required<MovementOf<'framing'>>();
  readonly preset = input.required<Preset>();

  protected readonly box = `-1 -1 ${WIDTH + 2} ${HEIGHT + 2}`;
  protected readonly frames = computed(() =>
    framingsAtDefaults(this.preset(), this.movement()).map((framing) => {
      const { x, y, zoom } = coveringFraming(framing);
      const [width, height] = [WIDTH / zoom, HEIGHT / zoom];
      return { x: x * WIDTH - width / 2, y: y * HEIGHT - height / 2, width, height };
    }),
  );
  protected readonly words = computed(() => `${this.frames().length} framings of the picture`);
}

/** The framings with every parameter at its default; where a formula is broken, the whole picture. */
function framingsAtDefaults(preset: Preset, movement: MovementOf<'framing'>) {
  const result = compilePreset(preset);
  const { movements, parameters, scope } = result.ok ? result.compiled : result.rest;
  const inputs = new Float64Array(scope.size);
  inputs[0] = 1 / 25;
  for (const { parameter, standard } of parameters) {
    const place = scope.places.get(`@${parameter.name}`);
    if (place !== undefined) inputs[place] = standard.evaluate(inputs);
  }
  const formulas = movements.find((entry) => entry.movement.id === movement.id)?.formulas;
  const value = (field: string, standard: number): number => {
    const number = formulas?.get(field)?.evaluate(inputs) ?? standard;
    return Number.isFinite(number) && number !== 0 ? number : standard;
  };
  return movement.parts.map((_, i) => ({
    x: value(`${i}.x`, 0.5),
    y: value(`${i}.y`, 0.5),
    zoom: value(`${i}.zoom`, 1),
  }));
}
