const BLOCK = 512
const LONGEST_NAME = 100

/** Octal digits with a closing zero byte, as tar has its numbers. */
function octal(value: number, digits: number): string {
  return `${value.toString(8).padStart(digits, '0')}\0`
}

/** The header of one file (POSIX.1-1988, ustar). */
function header(name: string, bytes: number): Uint8Array<ArrayBuffer> {
  const block = new Uint8Array(BLOCK)
  const put = (at: number, text: string | Uint8Array) =>
    block.set(typeof text === 'string' ? new TextEncoder().encode(text) : text, at)
  // the end of a name tells more than its beginning: the number is there
  const packed = new TextEncoder().encode(name)
  put(0, packed.subarray(Math.max(0, packed.length - LONGEST_NAME)))
  put(100, octal(0o644, 7))
  put(108, octal(0, 7))
  put(116, octal(0, 7))
  put(124, octal(bytes, 11))
  put(136, octal(0, 11))
  put(148, '        ')
  put(156, '0')
  put(257, 'ustar\0' + '00')
  put(
    148,
    `${octal(
      block.reduce((sum, byte) => sum + byte, 0),
      6,
    )} `,
  )
  return block
}

/** Files in one, in the open tar form; nothing is read before it is sent. */
export function tarOf(files: readonly File[], name: string): File {
  const parts: BlobPart[] = []
  for (const file of files) {
    parts.push(header(file.name, file.size), file)
    const over = file.size % BLOCK
    if (over > 0) {
      parts.push(new Uint8Array(BLOCK - over))
    }
  }
  parts.push(new Uint8Array(2 * BLOCK))
  // the same pictures dropped again are known for the same, so that sending goes on
  const latest = files.reduce((most, file) => Math.max(most, file.lastModified), 0)
  return new File(parts, name, { type: 'application/x-tar', lastModified: latest })
}
