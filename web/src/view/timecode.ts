/** Frames a second a time code counts with: the whole number at or above the true rate (SMPTE ST 12-1). */
function counted(rate: number): number {
  return Math.max(1, Math.round(rate))
}

/** Two numbers are left out every minute but each tenth, at 30000/1001 (twice as many at 60000/1001; SMPTE ST 12-1). */
function dropped(rate: number): number {
  const count = counted(rate)
  return count % 30 === 0 && Math.abs(rate - count) > 0.001 ? count / 15 : 0
}

/** The label of a clip's first frame, as its file has it. */
export interface Start {
  readonly frame: number
  readonly drop: boolean
}

export function startOf(label: string | undefined, rate: number): Start | undefined {
  const frame = label === undefined ? undefined : frameOf(label.replace('.', ';'), rate)
  return frame === undefined ? undefined : { frame, drop: /[;.]/.test(label ?? '') }
}

/**
 * The frame a text stands for: `12.5` seconds, `1:02.5`, `1:02:03`, `f120` a frame number, `01:00:02:10` a time code,
 * `01:00:02;10` one with dropped numbers. Undefined where it is none of these.
 *
 * @param rate frames a second
 * @param start label of the first frame; a time code before it counts from the clip's beginning
 */
export function frameOf(text: string, rate: number, start?: Start): number | undefined {
  const clean = text.trim()
  const number = /^f\s*(\d+)$/i.exec(clean)
  if (number) {
    return Number(number[1])
  }
  const code = /^(\d{1,2}):(\d{1,2}):(\d{1,2})([:;])(\d{1,2})$/.exec(clean)
  if (code) {
    const [h, m, s, f] = [Number(code[1]), Number(code[2]), Number(code[3]), Number(code[5])]
    const count = counted(rate)
    if (m > 59 || s > 59 || f >= count) {
      return undefined
    }
    const minutes = 60 * h + m
    const drop = code[4] === ';' ? dropped(rate) : 0
    if (drop > 0 && s === 0 && f < drop && m % 10 !== 0) {
      return undefined
    }
    const labelled = (minutes * 60 + s) * count + f - drop * (minutes - Math.floor(minutes / 10))
    return start && labelled >= start.frame ? labelled - start.frame : labelled
  }
  const parts = clean.split(':')
  if (!/^\d/.test(clean) || parts.length > 3 || parts.some((part) => !/^\d+(\.\d+)?$/.test(part))) {
    return undefined
  }
  const seconds = parts.reduce((sum, part) => 60 * sum + Number(part), 0)
  return Math.round(seconds * rate)
}

/** A frame as a time code; `;` before the frames where numbers are dropped. */
export function timecode(frame: number, rate: number, start?: Start): string {
  const count = counted(rate)
  const drop = start && !start.drop ? 0 : dropped(rate)
  let n = frame + (start?.frame ?? 0)
  if (drop > 0) {
    const inTen = 600 * count - 9 * drop
    const tens = Math.floor(n / inTen)
    const rest = n % inTen
    n += 9 * drop * tens
    if (rest >= 60 * count) {
      n += drop * Math.floor((rest - 60 * count) / (60 * count - drop) + 1)
    }
  }
  const two = (value: number) => String(value).padStart(2, '0')
  const seconds = Math.floor(n / count)
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${
    drop > 0 ? ';' : ':'
  }${two(n % count)}`
}
