export {
  libraryItemSchema,
  draftItemSchema,
  tagsSchema,
  tagSchema,
  collectionSchema,
  summarySchema,
  textFields,
  isOffered,
  isPreset,
  isRig,
  ITEM_STATES,
  ITEM_KINDS,
  type ItemState,
  type ItemKind,
  type LibraryItem,
  type PresetItem,
  type RigItem,
  type CurveItem,
  type HouseItem,
  type RecipeItem,
  type LookItem,
  type PaletteItem,
} from './item';
export {
  houseSchema,
  curveSchema,
  houseText,
  houseTypeFor,
  HOUSE_TYPES,
  type HouseValue,
  type HouseType,
  type NamedCurve,
} from './house';
export {
  itemRecordSchema,
  revisionOf,
  draftOf,
  inPresentWords,
  frontOf,
  recordOf,
  ITEM_FORMAT,
  type ItemRecord,
  type RevisionRecord,
  type DraftRecord,
} from './record';
export { createShelf, parametersFor, type Shelf } from './shelf';
export { keptLookSchema, lookFromPreset, lookOfLayer, lookPreset, type KeptLook } from './look';
export {
  paletteSchema,
  paletteColours,
  rampOf,
  contrastPairs,
  MOST_COLOURS,
  RAMP_STEPS,
  type ColourPair,
  type Palette,
} from './palette';
export { keepUsed, shelfAsUsed, presetAsUsed, takeItem, type Kept, type Taken } from './used';
export { referencesOf, findCircle, type Reference, type ReferenceUse } from './references';
