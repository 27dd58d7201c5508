export {
  FILE_TYPES,
  FONT_FILE,
  MOST_FILE_BYTES,
  PICTURE_FILE,
  SOUND_FILE,
  fileAddress,
  fileAt,
  fileFactsSchema,
  fileNameSchema,
  fileType,
  keptFileSchema,
  ownFamily,
  type FileEnding,
  type FileFacts,
  type FileKind,
  type KeptFile,
} from './file';
export { endingOf } from './sniff';
