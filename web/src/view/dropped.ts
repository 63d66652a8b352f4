/** Files of a folder that nobody means when dropping it. */
const UNMEANT = /^(\.|Thumbs\.db$|desktop\.ini$)/i

/** All files dropped, folders opened to any depth; in the order of their names. */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  // entries must be taken at once: the list is empty as soon as the event is over
  const entries = [...data.items].map((item) => item.webkitGetAsEntry?.() ?? null)
  if (entries.every((entry) => entry === null || entry.isFile)) {
    return [...data.files]
  }
  const files: File[] = []
  for (const entry of entries) {
    if (entry) {
      await collect(entry, files, true)
    }
  }
  return files
}

async function collect(entry: FileSystemEntry, into: File[], named: boolean): Promise<void> {
  if (!named && UNMEANT.test(entry.name)) {
    return
  }
  if (entry.isFile) {
    into.push(await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail)))
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const inside: FileSystemEntry[] = []
  for (;;) {
    // a reader gives a hundred or so at a time, and nothing at the end
    const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail))
    if (some.length === 0) {
      break
    }
    inside.push(...some)
  }
  inside.sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
  for (const child of inside) {
    await collect(child, into, false)
  }
}
