/** The same with one in another place. */
export function moved<T>(list: T[], from: number, to: number): T[] {
  const next = [...list]
  const [one] = next.splice(from, 1)
  if (one !== undefined) {
    next.splice(to, 0, one)
  }
  return next
}

/** A title for several together: the words that all of theirs begin with, else the first one's. */
export function shared(titles: string[]): string {
  const bare = titles.map((title) => title.replace(/\.[A-Za-z0-9]{2,4}$/, ''))
  const first = bare[0] ?? ''
  let same = 0
  while (same < first.length && bare.every((title) => title[same] === first[same])) {
    same++
  }
  // not in the midst of a number, and without what only led to it
  const begin = first.slice(0, same).replace(/[\d\s._-]+$/, '')
  return `${begin || first} joined`.trim()
}
