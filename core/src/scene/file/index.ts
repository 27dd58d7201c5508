export {
  FILE_TYPES,
  FONT_FILE,
  MOST_FILE_BYTES,
  PICTURE_FILE,
  fileAddress,
  fileAt,
  fileNameSchema,
  fileType,
  keptFileSchema,
  ownFamily,
  type FileEnding,
  type FileKind,
  type KeptFile,
} from './file';
export { endingOf } from './sniff';
