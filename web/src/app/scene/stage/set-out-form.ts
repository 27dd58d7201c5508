import { formatShort, parseTimeEntry, type Rate, type SetOut, type SetOutWay, type Ticks } from '@wexikine/core';

/** What a person chooses between. */
export type SetOutKind = 'at once' | 'in turn' | 'rows';

/** What stands in the fields of the dialog. */
export interface SetOutFields {
  readonly kind: SetOutKind;
  readonly size: SetOutWay['size'];
  /** How long each is shown; may be empty where all are shown at once. */
  readonly hold: string;
  readonly rows: string;
  readonly apart: string;
}

const MOST_ROWS = 50;

function timeIn(text: string, rate: Rate): Ticks | null {
  const read = parseTimeEntry(text, rate);
  return read.ok && !read.entry.relative && read.entry.ticks >= 0 ? read.entry.ticks : null;
}

/** The fields as a way to set out so many layers, or what is wrong with them. */
export function readSetOut(fields: SetOutFields, count: number, rate: Rate): SetOutWay | string {
  const { kind, size } = fields;
  const isAtOnce = kind === 'at once';
  const hold = isAtOnce && fields.hold.trim() === '' ? null : timeIn(fields.hold, rate);
  if (hold === 0 || (hold === null && (!isAtOnce || fields.hold.trim() !== ''))) {
    return 'Write how long each is shown, such as 5s or 125f.';
  }
  if (isAtOnce) return { places: count, size, hold, apart: 0 };
  if (kind === 'in turn') return { places: 1, size, hold, apart: 0 };
  const rows = fields.rows.trim() === '' ? NaN : Number(fields.rows);
  if (!Number.isInteger(rows) || rows < 1 || rows > MOST_ROWS)
    return `Write a whole number of rows from 1 to ${MOST_ROWS}.`;
  const apart = timeIn(fields.apart, rate);
  if (apart === null) return 'Write how much later each row begins, such as 1s; 0f for all together.';
  return { places: rows, size, hold, apart };
}

const MOST_TOLD = 4;

/** When things begin and end, as a sentence. */
export function setOutWords({ starts, over }: SetOut, length: Ticks, rate: Rate): string {
  const said = starts.map((start) => formatShort(start, rate));
  const isAlike = new Set(said).size === 1;
  const list =
    said.length <= MOST_TOLD + 1
      ? said.join(', ')
      : `${said.slice(0, MOST_TOLD - 1).join(', ')} … ${said[said.length - 1]}`;
  const begin = isAlike ? `All begin at ${said[0]}` : `They begin at ${list}`;
  const longer = over > length ? ` The scene becomes ${formatShort(over, rate)} long.` : '';
  return `${begin}; the last is over at ${formatShort(over, rate)}.${longer}`;
}
