/** Lists of cores as Linux writes them, 0-3,6. */

/** @throws RangeError where it is none */
export function coresOf(list: string): number[] {
  return list.split(',').flatMap((part) => {
    const span = /^(\d{1,5})(?:-(\d{1,5}))?$/.exec(part.trim())
    if (!span) {
      throw new RangeError(list)
    }
    const from = Number(span[1])
    const to = Number(span[2] ?? span[1])
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, n) => from + n)
  })
}

/** The first so many of a list. */
export function firstOf(list: string, many: number): string {
  const cores = coresOf(list).slice(0, many)
  const spans: string[] = []
  for (let n = 0; n < cores.length;) {
    let end = n
    while (end + 1 < cores.length && cores[end + 1] === cores[end]! + 1) {
      end++
    }
    spans.push(end === n ? `${cores[n]}` : `${cores[n]}-${cores[end]}`)
    n = end + 1
  }
  return spans.join(',')
}
