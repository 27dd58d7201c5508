export { openDatabase, type Database, type Queries } from './database';
export { lockFolder, FolderInUse } from './folder-lock';
