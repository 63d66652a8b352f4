/** Pictures whose names differ in one number alone: the frames of one clip. */
export interface Series<T extends { name: string }> {
  readonly title: string
  readonly files: T[]
  /** Numbers between the first and the last that no picture has. */
  readonly missing: number[]
}

const NUMBERED = /^(.*?)(\d{1,9})\.(png|jpe?g|tiff?|webp)$/i
/** Fewer are pictures that happen to be numbered. */
const LEAST = 3

/** The series among some files, and the files that are in none. */
export function seriesAmong<T extends { name: string }>(
  files: Iterable<T>,
): { series: Series<T>[]; rest: T[] } {
  const rest: T[] = []
  const kinds = new Map<string, { shared: string; ending: string; all: { file: T; number: number }[] }>()
  for (const file of files) {
    const parts = NUMBERED.exec(file.name)
    if (!parts) {
      rest.push(file)
      continue
    }
    const [, shared = '', number = '', kind = ''] = parts
    const ending = kind.toLowerCase()
    const key = `${shared}/${ending}`
    const same = kinds.get(key) ?? { shared, ending, all: [] }
    same.all.push({ file, number: Number(number) })
    kinds.set(key, same)
  }
  const series: Series<T>[] = []
  for (const { shared, ending, all } of kinds.values()) {
    if (all.length < LEAST) {
      rest.push(...all.map((one) => one.file))
      continue
    }
    all.sort((a, b) => a.number - b.number)
    const missing: number[] = []
    for (let i = 1; i < all.length; i++) {
      for (let n = (all[i - 1]?.number ?? 0) + 1; n < (all[i]?.number ?? 0); n++) {
        missing.push(n)
      }
    }
    const name = shared.replace(/[ _.-]+$/, '') || 'Pictures'
    series.push({
      title: `${name} ${all[0]?.number}-${all.at(-1)?.number}.${ending}`,
      files: all.map((one) => one.file),
      missing,
    })
  }
  return { series, rest }
}
