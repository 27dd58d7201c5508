export { openDatabase, type Database, type Queries } from './database';
export { makeEmptyDatabase } from './empty-folder';
export { lockFolder, FolderInUse } from './folder-lock';
