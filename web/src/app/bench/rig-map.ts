import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { compileRig, rigChannels, type Rig } from '@wexikine/core';

const ROW = 34;
const BOX = 24;
const LEFT = 138;
const RIGHT = 236;
const WIDTH = 360;

/** What a node of the map is called, and where it stands. */
interface Node {
  readonly name: string;
  readonly y: number;
}

/** What depends on what: dials and channels of other layers on the left, driven channels on the right. */
@Component({
  selector: 'wx-rig-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let shown = map();
    <svg [attr.viewBox]="'0 0 360 ' + shown.height" role="img" [attr.aria-label]="words()">
      @for (line of shown.lines; track $index) {
        <path [attr.d]="line" />
      }
      @for (node of shown.sources; track node.name) {
        <rect class="source" x="2" [attr.y]="node.y" width="136" height="24" rx="12" />
        <text x="14" [attr.y]="node.y + 16">{{ node.name }}</text>
      }
      @for (node of shown.channels; track node.name) {
        <rect class="channel" x="236" [attr.y]="node.y" width="122" height="24" rx="12" />
        <text x="248" [attr.y]="node.y + 16">{{ node.name }}</text>
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 380px;
    }
    path {
      fill: none;
      stroke: var(--ink-soft);
      stroke-width: 1.3;
    }
    .source {
      fill: var(--saffron-wash);
      stroke: var(--line-strong);
    }
    .channel {
      fill: var(--paper-high);
      stroke: var(--line-strong);
    }
    text {
      font: 12px var(--font-text);
      fill: var(--ink);
    }
  `,
})
export class RigMap {
  readonly rig = input.required<Rig>();

  private readonly edges = computed(() => {
    const all: (readonly [string, string])[] = [];
    for (const { channel, formula, sources } of compileRig(this.rig()).formulas) {
      const known = new Set(sources.filter(({ role }) => role !== null).map(({ name }) => name));
      for (const name of formula.reads) {
        if (name.startsWith('@') || known.has(name)) all.push([name.replace(/^(@\w+)\..*/, '$1'), channel]);
      }
    }
    return all;
  });

  protected readonly map = computed(() => {
    const edges = this.edges();
    const names = [...new Set([...this.rig().dials.map(({ name }) => `@${name}`), ...edges.map(([from]) => from)])];
    const nodes = (list: readonly string[]): Node[] => list.map((name, i) => ({ name, y: 2 + i * ROW }));
    const [sources, channels] = [nodes(names), nodes(rigChannels(this.rig()))];
    const yOf = (list: readonly Node[], name: string): number =>
      (list.find((node) => node.name === name)?.y ?? 0) + BOX / 2;
    const middle = (LEFT + RIGHT) / 2;
    const lines = edges.map(([from, to]) => {
      const [a, b] = [yOf(sources, from), yOf(channels, to)];
      return `M${LEFT} ${a}C${middle} ${a} ${middle} ${b} ${RIGHT} ${b}`;
    });
    return { sources, channels, lines, height: Math.max(1, sources.length, channels.length) * ROW, width: WIDTH };
  });

  /** The map for those who do not see it. */
  protected readonly words = computed(() => {
    const edges = this.edges();
    return rigChannels(this.rig())
      .map((channel) => {
        const reads = edges.filter(([, to]) => to === channel).map(([from]) => from);
        return `${channel} depends on ${reads.length > 0 ? reads.join(', ') : 'its keys alone'}`;
      })
      .join('; ');
  });
}
