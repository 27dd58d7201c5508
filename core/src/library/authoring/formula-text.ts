import { formulaParser } from '../../formulas/formula';
import { mapMovement, type Preset } from '../../formulas/preset';

/** One mention of a parameter in a formula's text: what follows the @, and where the whole mention stands. */
export interface Mention {
  /** `over`, or with a part `side.left`. */
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** All mentions of parameters in a text, in order, whether the formula is sound or not. */
export function mentionsIn(text: string): Mention[] {
  const found: Mention[] = [];
  formulaParser.parse(text).iterate({
    enter: ({ name, from, to }) => {
      if (name === 'Parameter') found.push({ name: text.slice(from + 1, to), from, to });
    },
  });
  return found;
}

/** Name of the parameter that a mention is of, without the part. */
export function baseName(name: string): string {
  return name.split('.')[0];
}

/** A text with some mentions written anew; `rewrite` gives the new text, or null to leave a mention as it is. */
export function rewriteMentions(text: string, rewrite: (mention: Mention) => string | null): string {
  let [result, at] = ['', 0];
  for (const mention of mentionsIn(text)) {
    const replacement = rewrite(mention);
    if (replacement === null) continue;
    result += text.slice(at, mention.from) + replacement;
    at = mention.to;
  }
  return result + text.slice(at);
}

/** A preset with every formula that may mention parameters put through `change`. */
export function mapFormulas(preset: Preset, change: (text: string) => string): Preset {
  return {
    ...preset,
    moments: preset.moments.map((moment) => ({ ...moment, at: change(moment.at) })),
    rows: preset.rows.map((row) => ({
      ...row,
      cells: row.cells.map((cell) => ({ ...cell, value: change(cell.value) })),
    })),
    ...(preset.movements ? { movements: preset.movements.map((movement) => mapMovement(movement, change)) } : {}),
  };
}
