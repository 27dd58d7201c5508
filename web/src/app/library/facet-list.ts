import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { HouseItem } from '@wexikine/core';
import { houseText, literalWords } from '@wexikine/core';
import type { FacetCount, FacetName, Facets } from './facets';

interface Section {
  readonly name: FacetName;
  readonly title: string;
  readonly counts: readonly FacetCount[];
}

const TITLES: readonly (readonly [FacetName, string])[] = [
  ['mine', 'Mine'],
  ['phase', 'When it plays'],
  ['family', 'Moves'],
  ['state', 'State'],
  ['collection', 'Collections'],
];

const LAST: readonly (readonly [FacetName, string])[] = [['tag', 'Tags']];

/** What the library can be narrowed down by, with how many each would show, and the house values. */
@Component({
  selector: 'wx-facet-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet],
  template: `
    @for (section of sections().first; track section.name) {
      <ng-container [ngTemplateOutlet]="facet" [ngTemplateOutletContext]="{ $implicit: section }" />
    }
    <h2>House values</h2>
    @for (item of house(); track item.id) {
      <button class="mono" type="button" [title]="item.note" (click)="houseChosen.emit(item)">
        <span class="as-is">{{ item.name }}</span>
        @if (item.body.type === 'colour') {
          <i [style.background]="item.body.value"></i>
        } @else {
          <b>{{ words(item) }}</b>
        }
      </button>
    } @empty {
      <p class="quiet-text">There are no house values yet.</p>
    }
    @for (section of sections().last; track section.name) {
      <ng-container [ngTemplateOutlet]="facet" [ngTemplateOutletContext]="{ $implicit: section }" />
    }
    <ng-template #facet let-given>
      @let section = asSection(given);
      <h2>{{ section.title }}</h2>
      @for (facet of section.counts; track facet.value) {
        <button
          type="button"
          [class.on]="facets()[section.name] === facet.value"
          [attr.aria-pressed]="facets()[section.name] === facet.value"
          [disabled]="facet.count === 0 && facets()[section.name] !== facet.value"
          (click)="toggled.emit({ name: section.name, value: facet.value })"
        >
          <span [title]="facet.value">{{ facet.value }}</span><b>{{ facet.count }}</b>
        </button>
      }
    </ng-template>
  `,
  styleUrl: './facet-list.scss',
})
export class FacetList {
  readonly facets = input.required<Facets>();
  readonly counts = input.required<Readonly<Record<FacetName, readonly FacetCount[]>>>();
  readonly house = input.required<readonly HouseItem[]>();
  readonly toggled = output<{ readonly name: FacetName; readonly value: string }>();
  readonly houseChosen = output<HouseItem>();

  /** What stands before the house values, and what after. */
  protected readonly sections = computed(() => ({ first: this.sectionsOf(TITLES), last: this.sectionsOf(LAST) }));

  private sectionsOf(titles: typeof TITLES): Section[] {
    return titles
      .map(([name, title]) => ({ name, title, counts: this.counts()[name] }))
      .filter(({ counts }) => counts.length > 0);
  }

  /** Gives what a template outlet passes on its type again. */
  protected asSection(section: Section): Section {
    return section;
  }

  protected words({ body }: HouseItem): string {
    return body.type === 'curve' ? 'curve' : literalWords(houseText(body));
  }
}
