import { ChangeDetectionStrategy, Component } from '@angular/core';

const GROUPS = [
  {
    title: 'In a scene',
    keys: [
      ['Ctrl + Enter', 'Dry run, then apply it; in a field, too'],
      ['W', 'Show or hide the dry run'],
      ['K', 'Keys in rows of channels, or the run sheet'],
      ['C', 'Curves in the place of the run sheet, and back'],
      ['Ctrl + Z', 'Undo'],
      ['Ctrl + Shift + Z', 'Redo'],
      ['Ctrl + A', 'Select all layers that are not locked, hidden or in a group; among keys, pick all keys'],
      ['Ctrl + a press on a row', 'Select this layer, too'],
      ['Shift + a press on a row', 'Select all layers from the one that leads to this one'],
      ['V', 'Preview in the whole window, and back'],
      ['+, −', 'Closer in time, or more of it (Ctrl + wheel, too)'],
      ['R, Shift + R', 'Show the run; show the whole scene'],
      ['1 to 8', 'Curve, layer, runs, cues, findings, history, dials, timing'],
      ['T', 'A tap on the beat, while tapping cues along'],
      ['F2', 'Set the start of the selected row by hand'],
      ['Alt + ↑ or ↓', 'Move the selected row in the order of the run'],
      [
        'Ctrl + Shift + ↑ or ↓',
        'Put the selected row further back or to the front; ← and → out of its group and into the one above',
      ],
      ['Drag a name', 'Put the layer elsewhere in depth, or into a group'],
      ['Escape while dragging', 'Give the drag up: all is as it was before'],
      ['?', 'This page'],
    ],
  },
  {
    title: 'Playing',
    keys: [
      ['Space', 'Play or pause'],
      ['Alt + ←, Alt + →', 'One frame back or on'],
      ['Alt + Shift + ←, →', 'Previous or next key'],
      ['Home', 'To the first frame'],
      ['O', 'Play in a loop'],
      ['F', 'Fit the frame'],
    ],
  },
  {
    title: 'In the sentence',
    keys: [
      ['Tab', 'From field to field'],
      ['Enter', 'Open a field'],
      ['↑, ↓', 'Step a number; with Shift coarse, with Alt fine'],
      ['+8, −8, ×2, ÷2', 'Typed in a number field: so much more or less, or by a factor'],
      ['= −8', 'Minus eight itself'],
      ['?', 'Beside a field: what it does'],
      ['Drag sideways', 'Scrub a number; with Shift by ten'],
      ['Escape', 'Close the field'],
    ],
  },
  {
    title: 'In the run sheet',
    keys: [
      ['↑, ↓', 'From layer to layer'],
      ['→, ←', 'Open or close a group'],
      ['Space', 'Take part, or not'],
      ['Delete', 'Remove the layer (undo brings it back)'],
    ],
  },
  {
    title: 'On the preview',
    keys: [
      ['Click', 'Select; with Ctrl this layer, too'],
      ['Drag what is selected', 'Move it; with Shift straight, with Ctrl without snapping'],
      [
        'Drag a corner',
        'Scale, or resize as the switch says; with Alt from the anchor, with Shift freely, or with the ratio kept',
      ],
      ['Z', 'Zoom to what is selected; without a selection to the frame'],
      ['Drag the knob', 'Turn; with Shift by 15°'],
      ['Alt + drag the anchor', 'Move it; the picture stays. With Ctrl without snapping'],
      ['Double click on words', 'Edit them there; Ctrl + Enter or a click beside keeps them, Escape leaves them'],
      ['Right button', 'What can be done there, and what lies under the pointer'],
      ['G, Shift + G', 'Group what is selected; take a group apart'],
      [
        'N',
        'A new path, point by point: a press sets a corner, a drag a round point, Enter ends it, the first point closes it',
      ],
      ['D', 'Duplicate; once more, by the way that the copy was moved'],
      ['Page Up, Page Down', 'Forward, backward; with Shift to the front, to the back'],
      ['Ctrl + C, Ctrl + V', 'Copy layers; paste them, here or in another scene'],
      ['Delete', 'Remove what is selected'],
      ['←, →, ↑, ↓', 'By a pixel; with Shift by ten, with Ctrl by a tenth'],
      ['Shift + drag beside it', 'Pick the layers in a box'],
    ],
  },
  {
    title: 'Among the keys',
    keys: [
      ['↑, ↓', 'From row to row'],
      ['Enter, Space', 'Pick the keys of the row; with Shift these too'],
      ['→, ←', 'Move what is picked by a frame; with Shift by ten'],
      ['Ctrl + A', 'Pick all'],
      ['Ctrl + C, X, V', 'Copy, cut, paste at the playhead'],
      ['Delete', 'Remove what is picked'],
      ['Escape', 'Pick nothing'],
      ['Shift, or Ctrl, and a press', 'Pick these too'],
      ['Alt and a press', 'The moment on all layers'],
    ],
  },
  {
    title: 'On the curves',
    keys: [
      ['Page ↑, Page ↓', 'From key to key'],
      ['Enter, Space', 'Pick the key; with Shift this one, too'],
      ['←, →, ↑, ↓', 'Move what is picked by a frame, or by 1; with Shift by ten'],
      ['Shift and a drag', 'A key straight along or up; a handle level'],
      ['Alt and a drag', 'A handle alone, or the whole view'],
      ['Ctrl or Alt and the wheel', 'Closer in time, or in value'],
    ],
  },
  {
    title: 'In the library',
    keys: [
      ['↑, ↓, ←, →', 'From tile to tile'],
      ['Enter', 'Open on the bench'],
      ['Space', 'Select, or not'],
      ['F', 'Favourite, or not'],
      ['Ctrl + click', 'Select one more'],
    ],
  },
  {
    title: 'On the bench',
    keys: [
      ['↑, ↓, ←, →', 'From cell to cell'],
      ['Enter, or type', 'Edit a cell'],
      ['Enter, Tab', 'Keep it, and down or on'],
      ['Shift + Enter', 'A new line, for let'],
      ['Escape', 'Take back what was typed'],
      ['Delete', 'Empty a cell'],
      ['Space', 'Play or pause the specimen'],
      ['Ctrl + Z', 'Undo'],
    ],
  },
] as const;

/** The keys that do something, by place. */
@Component({
  selector: 'wx-shortcuts-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  // The page scrolls, so the keyboard must be able to reach it.
  host: { tabindex: '0', role: 'main', 'aria-label': 'Shortcuts' },
  template: `
    <div class="page">
      <h1>Shortcuts</h1>
      <div class="groups">
        @for (group of groups; track group.title) {
          <section>
            <h2>{{ group.title }}</h2>
            <dl>
              @for (entry of group.keys; track entry[0]) {
                <div>
                  <dt>
                    <kbd>{{ entry[0] }}</kbd>
                  </dt>
                  <dd>{{ entry[1] }}</dd>
                </div>
              }
            </dl>
          </section>
        }
      </div>
    </div>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: auto;
      background: var(--paper-low);
    }
    .page {
      max-width: 1120px;
      padding: 24px 32px 48px;
    }
    h1 {
      font-size: 26px;
      margin-bottom: 18px;
    }
    h2 {
      font-size: 16px;
      margin-bottom: 6px;
    }
    .groups {
      columns: 2;
      column-gap: 16px;
    }
    section {
      break-inside: avoid;
      margin-bottom: 16px;
      padding: 16px 18px;
      border: 1px solid var(--line);
      border-radius: 12px;
      background: var(--paper-high);
    }
    dl {
      margin: 0;
    }
    dl div {
      display: grid;
      grid-template-columns: 200px 1fr;
      gap: 10px;
      align-items: baseline;
      padding: 5px 0;
      border-top: 1px solid var(--line);
    }
    dd {
      margin: 0;
    }
    kbd {
      font: 500 13px var(--font-mono);
    }
  `,
})
export class ShortcutsPage {
  protected readonly groups = GROUPS;
}
