/** Panels beside each other below the preview. */
export const PANELS = ['curve', 'timing', 'dials', 'layer', 'runs', 'cues', 'findings', 'history'] as const;
/** The name of a panel. */
export type Panel = (typeof PANELS)[number];
/** Panels by their keys 1 to 8: what came later has a later key. */
export const PANELS_BY_KEY: readonly Panel[] = [
  'curve',
  'layer',
  'runs',
  'cues',
  'findings',
  'history',
  'dials',
  'timing',
];
/** What panels are called. */
export const PANEL_LABELS: Readonly<Record<Panel, string>> = {
  curve: 'Curve',
  timing: 'Timing',
  dials: 'Dials',
  layer: 'Layer',
  runs: 'Runs',
  cues: 'Cues',
  findings: 'Findings',
  history: 'History',
};
