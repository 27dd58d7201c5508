/** What is dropped: a file, or a folder of them (File and Directory Entries API). */
type Entry = Pick<FileSystemEntry, 'isFile' | 'name'>;

/** Files that a system keeps in folders for itself. */
const isHidden = (name: string): boolean => name.startsWith('.') || /^(thumbs\.db|desktop\.ini)$/i.test(name);

const byName = new Intl.Collator('en', { numeric: true });

function fileOf(entry: FileSystemFileEntry): Promise<File> {
  return new Promise((done, failed) => entry.file(done, failed));
}

/** All that is in a folder; it gives its entries in parts. */
async function entriesIn(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed));
    if (part.length === 0) return all.sort((a, b) => byName.compare(a.name, b.name));
    all.push(...part);
  }
}

async function filesOf(entry: Entry, most: number): Promise<File[]> {
  if (entry.isFile) return [await fileOf(entry as FileSystemFileEntry)];
  const files: File[] = [];
  for (const inside of await entriesIn(entry as FileSystemDirectoryEntry)) {
    if (isHidden(inside.name)) continue;
    // One more than can be brought in is enough to say that there are too many.
    if (files.length > most) break;
    files.push(...(await filesOf(inside, most - files.length)));
  }
  return files;
}

/**
 * The files of a drop, those in dropped folders too, folder by folder in the order of their names; of more than `most` some
 * are left out. What is dropped can only be asked for before anything is waited for.
 */
export async function droppedFiles(data: Pick<DataTransfer, 'files' | 'items'>, most: number): Promise<File[]> {
  const entries = [...data.items].map((item) => item.webkitGetAsEntry());
  const plain = [...data.files];
  if (!entries.some((entry) => entry?.isDirectory)) return plain;
  const files: File[] = [];
  for (const entry of entries) if (entry) files.push(...(await filesOf(entry, most)));
  return files;
}
