import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit, formatHex, parse } from 'culori/fn';
import { cssFromOklab, oklabFromCss } from './oklab';

/** Eyes that see colours otherwise. */
export type Sight = 'protan' | 'deutan' | 'tritan';

/** Kinds of sight, with words for people. */
export const SIGHTS: readonly { readonly id: Sight; readonly label: string }[] = [
  { id: 'protan', label: 'without red cones' },
  { id: 'deutan', label: 'without green cones' },
  { id: 'tritan', label: 'without blue cones' },
];

const FILTERS = {
  protan: filterDeficiencyProt(1),
  deutan: filterDeficiencyDeuter(1),
  tritan: filterDeficiencyTrit(1),
} as const;

/**
 * A colour as somebody sees it who lacks one kind of cones; hexadecimal text. Source: Machado, Oliveira and Fernandes, A
 * physiologically-based model for simulation of color vision deficiency (2009), severity 1.
 */
export function seenAs(text: string, sight: Sight): string {
  const lab = oklabFromCss(text);
  const colour = lab && parse(cssFromOklab({ ...lab, alpha: 1 }));
  return colour ? formatHex(FILTERS[sight](colour)) : text;
}
