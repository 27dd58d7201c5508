import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { nodesOfPath, pathOfNodes, pathShape, reshapedPath, type Layer } from '@wexikine/core';
import { PathEditor } from '../../fields/path-editor';
import type { LayerStep } from '../../looks/layer-step';

/** The points of a layer's outline, where it is a path of one line. */
@Component({
  selector: 'wx-layer-shape',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PathEditor],
  template: `
    @if (d(); as outline) {
      <h3>Shape <small>point by point; what is not changed stays where it is</small></h3>
      <wx-path-editor [d]="outline" [hasRest]="false" (changed)="reshape($event)" />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    :host:empty {
      display: none;
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
export class LayerShape {
  readonly layer = input.required<Layer>();
  readonly step = output<LayerStep>();

  protected readonly d = computed(() => {
    const shape = pathShape(this.layer());
    return shape && pathOfNodes(shape);
  });

  protected reshape(d: string): void {
    const edits = reshapedPath(this.layer(), nodesOfPath(d));
    if (edits.length > 0) this.step.emit({ label: `Reshape “${this.layer().name}”`, edits });
  }
}
