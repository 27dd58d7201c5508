/** What can be done with an item besides working on it. */
export type MoreStep = 'publish' | 'duplicate' | 'exit' | 'discard' | 'retire' | 'bring back';

/** The icon and the words of each. */
export const MORE_WORDS: Readonly<Record<MoreStep, { readonly icon: string; readonly label: string }>> = {
  publish: { icon: 'publish', label: 'Publish without review…' },
  duplicate: { icon: 'file_copy', label: 'Duplicate' },
  exit: { icon: 'flip', label: 'Make the matching exit' },
  discard: { icon: 'delete', label: 'Discard the draft…' },
  retire: { icon: 'archive', label: 'Retire' },
  'bring back': { icon: 'unarchive', label: 'Bring back' },
};

/** Where an item is between a draft and being retired. */
export interface ItemStanding {
  readonly hasDraft: boolean;
  readonly isInReview: boolean;
  readonly isRetired: boolean;
  readonly isPublished: boolean;
  readonly isEntrance: boolean;
}

/** The steps that an item offers as it stands. */
export function moreSteps({ hasDraft, isInReview, isRetired, isPublished, isEntrance }: ItemStanding): MoreStep[] {
  return [
    ...(hasDraft && !isInReview ? (['publish'] as const) : []),
    'duplicate',
    ...(isEntrance ? (['exit'] as const) : []),
    ...(hasDraft ? (['discard'] as const) : []),
    ...(isPublished && !isRetired ? (['retire'] as const) : []),
    ...(isRetired ? (['bring back'] as const) : []),
  ];
}
