/** A word of the application, and what it means. */
export interface Word {
  readonly word: string;
  readonly meaning: string;
}

/** The words that the screens use, for those who meet them for the first time. */
export const WORDS: readonly { readonly title: string; readonly words: readonly Word[] }[] = [
  {
    title: 'What there is',
    words: [
      { word: 'Scene', meaning: 'Everything that plays together: its size, frame rate, length, cues and layers.' },
      {
        word: 'Layer',
        meaning:
          'One thing in a scene: a card, a word, a picture, or a group of layers. It has an in point, an out point and keys.',
      },
      { word: 'Channel', meaning: 'One number of a layer that can be animated, such as position x, scale or opacity.' },
      {
        word: 'Rest pose',
        meaning:
          'The layer as it is when nothing moves it: the final layout. Motion goes to it or leaves it and never changes it.',
      },
      {
        word: 'Cut-out',
        meaning:
          'A picture without one of its colours, or without its dark or light part: what lies behind shows there.',
      },
      { word: 'Key', meaning: 'The value of one channel at one time, with the easing to the next key.' },
      { word: 'Cue', meaning: 'A time in the scene that has a name, such as a beat or a line of the voice-over.' },
    ],
  },
  {
    title: 'The library',
    words: [
      {
        word: 'Look',
        meaning:
          'Parts of how a layer is drawn, such as its border and shadow, kept in the library and put on other layers by a style.',
      },
      { word: 'Palette', meaning: 'Named colours that go together, with ramps in even steps between them.' },
      {
        word: 'Preset',
        meaning: 'A piece of animation with parameters, made once and put on as many layers as you like.',
      },
      {
        word: 'Phase',
        meaning: 'When a preset plays: as an entrance, as an accent at a time, throughout the layer, or as an exit.',
      },
      { word: 'Moment', meaning: 'A named time inside a preset, one column of its table, such as “Past its place”.' },
      { word: 'Parameter', meaning: 'A value of a preset that each run can set, such as how far a layer rises.' },
      {
        word: 'Rig',
        meaning:
          'Dials and formulas that drive channels live, over what the keys give. It makes no keys, so its dials can be turned at any time, for all of its layers at once.',
      },
      {
        word: 'Dial',
        meaning:
          'A value of a rig. The layers of a run share it; it can be keyed, and a layer can break away with its own.',
      },
      { word: 'Curve', meaning: 'An easing with a name, shared by many presets.' },
      {
        word: 'House value',
        meaning: 'A duration, number, curve or colour with a name. Change it, and the presets that use it can follow.',
      },
      {
        word: 'Revision',
        meaning: 'A published version of an item. It never changes; the next change is the next revision.',
      },
      {
        word: 'Pack',
        meaning: 'Items of the library in one file, with everything that they need, to give to somebody else.',
      },
    ],
  },
  {
    title: 'Working in batches',
    words: [
      {
        word: 'Turn into keys',
        meaning:
          'Writes what rigs give as keys, at most as far off as you say. Switch that run off, and the rig drives again.',
      },
      {
        word: 'Run',
        meaning:
          'One batch: a preset, on these layers, in this order, so far apart. Applied runs stay in a list and can be changed.',
      },
      { word: 'Sentence', meaning: 'A run in words, on top of the scene. Every underlined part is a field.' },
      { word: 'Dry run', meaning: 'What a sentence would do, shown in saffron before anything is changed.' },
      {
        word: 'Run sheet',
        meaning: 'The table of layers, with what the run gives to each of them and their keys in time.',
      },
      {
        word: 'Pick',
        meaning: 'A rule that says which layers take part: by tag, by name, by place, by what is in their data.',
      },
      { word: 'Order and gap', meaning: 'Who starts first, and how much later each next one starts: the stagger.' },
      {
        word: 'Recipe',
        meaning: 'The sentence as something to keep: saved in the library or in a file, and used in other scenes.',
      },
      {
        word: 'Findings',
        meaning: 'What the checks noticed, such as keys outside their layer. Some can be mended with one click.',
      },
      { word: 'Variants', meaning: 'Several versions of a sentence side by side, to choose from.' },
    ],
  },
];
