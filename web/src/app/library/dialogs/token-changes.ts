import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { houseText, literalWords, type TokenChange } from '@wexikine/core';

/** A house value or a palette in a few words; nothing where there is none. */
export function tokenWords(value: TokenChange['before']): string {
  if (value === null) return '';
  if (!('colours' in value)) return literalWords(houseText(value));
  const { colours, ramps = [] } = value;
  const count = colours.length === 1 ? '1 colour' : `${colours.length} colours`;
  return ramps.length === 0 ? count : `${count}, ${ramps.length === 1 ? '1 ramp' : `${ramps.length} ramps`}`;
}

/** What a file of design tokens would change. */
@Component({
  selector: 'wx-token-changes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="list">
      <table>
        <thead>
          <tr>
            <th>House value</th>
            <th>Compared with here</th>
            <th>Now</th>
            <th>Will be</th>
          </tr>
        </thead>
        <tbody>
          @for (change of changes(); track change.id) {
            <tr>
              <td>{{ change.path }}</td>
              <td>
                <span class="chip" [class.pine]="change.status !== 'same'">{{
                  change.status === 'same' ? 'the same' : change.status
                }}</span>
              </td>
              <td class="mono">{{ words(change.before) }}</td>
              <td class="mono">{{ words(change.after) }}</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styleUrl: './import-table.scss',
})
export class TokenChanges {
  readonly changes = input.required<readonly TokenChange[]>();
  protected readonly words = tokenWords;
}
