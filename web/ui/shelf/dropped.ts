/** Most files of one drop or folder. */
export const MOST_FILES = 2000;

/** The part of a dropped item that is read; see the standard “File and Directory Entries API”. */
export interface Dropped {
  getAsFile(): File | null;
  webkitGetAsEntry?(): Entry | null;
}

interface Entry {
  readonly isDirectory: boolean;
  readonly name: string;
}
interface FileEntry extends Entry {
  file(done: (file: File) => void, failed: (error: Error) => void): void;
}
interface FolderEntry extends Entry {
  createReader(): { readEntries(done: (entries: Entry[]) => void, failed: (error: Error) => void): void };
}

/** Whether a file of a folder may be a piece; others are skipped. */
export const mayBePiece = (name: string) => /\.json$/i.test(name) && !name.startsWith('.');

/** The entries of a folder, which arrive in batches until an empty one. */
async function entriesOf(folder: FolderEntry): Promise<Entry[]> {
  const reader = folder.createReader();
  const all: Entry[] = [];
  for (;;) {
    const some = await new Promise<Entry[]>((done, failed) => reader.readEntries(done, failed));
    if (some.length === 0) return all.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
    all.push(...some);
  }
}

async function filesIn(folder: FolderEntry, found: File[]): Promise<void> {
  for (const entry of await entriesOf(folder)) {
    if (found.length >= MOST_FILES) return;
    if (entry.isDirectory) await filesIn(entry as FolderEntry, found);
    else if (mayBePiece(entry.name))
      found.push(await new Promise<File>((done, failed) => (entry as FileEntry).file(done, failed)));
  }
}

/** The files of a drop: those dropped directly, and those of folders that may be pieces. */
export async function droppedFiles(items: readonly Dropped[]): Promise<File[]> {
  // Items can be read only during the drop event.
  const all = items.map((item) => ({ entry: item.webkitGetAsEntry?.() ?? null, file: item.getAsFile() }));
  const found: File[] = [];
  for (const { entry, file } of all)
    if (entry?.isDirectory) await filesIn(entry as FolderEntry, found);
    else if (file) found.push(file);
  return found.slice(0, MOST_FILES);
}
