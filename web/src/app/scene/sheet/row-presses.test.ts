import { describe, expect, it } from '@jest/globals';
import { RowPresses, type HeldKeys } from './row-presses';
import type { SheetRow } from './rows';

const BARE: HeldKeys = { ctrlKey: false, metaKey: false, shiftKey: false };
const SHIFT = { ...BARE, shiftKey: true };

/** Five rows; tells what each press led to. */
function sheet(lead: string | null) {
  const done: unknown[] = [];
  const rows = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ layer: { id } }) as SheetRow);
  const presses = new RowPresses({
    rows: () => rows,
    lead: () => lead,
    select: (id) => done.push({ alone: id }),
    also: (id) => done.push({ also: id }),
    many: (ids) => done.push({ many: ids }),
    ticked: (tick) => done.push(tick),
  });
  return { presses, done };
}

describe('presses on rows', () => {
  it('selects one layer alone, or besides the others with Ctrl or the command key', () => {
    const { presses, done } = sheet('a');
    presses.press(BARE, 'c');
    presses.press({ ...BARE, ctrlKey: true }, 'd');
    presses.press({ ...BARE, metaKey: true }, 'e');
    expect(done).toEqual([{ alone: 'c' }, { also: 'd' }, { also: 'e' }]);
  });

  it('selects a stretch with Shift, downwards and upwards, the leading layer first', () => {
    const { presses, done } = sheet('c');
    presses.press(SHIFT, 'e');
    presses.press(SHIFT, 'a');
    presses.press(SHIFT, 'c');
    expect(done).toEqual([{ many: ['c', 'd', 'e'] }, { many: ['c', 'a', 'b'] }, { many: ['c'] }]);
  });

  it('selects one layer with Shift where none leads, and two where the leading one is not shown', () => {
    const none = sheet(null);
    none.presses.press(SHIFT, 'b');
    expect(none.done).toEqual([{ alone: 'b' }]);
    const hidden = sheet('elsewhere');
    hidden.presses.press(SHIFT, 'b');
    expect(hidden.done).toEqual([{ many: ['elsewhere', 'b'] }]);
  });

  it('ticks one row, and with Shift all from the one that was ticked before', () => {
    const { presses, done } = sheet(null);
    presses.tick(SHIFT, 'b', true);
    presses.tick(SHIFT, 'd', true);
    presses.tick(BARE, 'e', false);
    presses.tick(SHIFT, 'c', false);
    expect(done).toEqual([
      { layers: ['b'], isOn: true },
      { layers: ['b', 'c', 'd'], isOn: true },
      { layers: ['e'], isOn: false },
      { layers: ['c', 'd', 'e'], isOn: false },
    ]);
  });
});
