/** What stands on either side of the glass. */
interface Standing {
  /** A proof's frame, while one is played: its take, and the one it is laid beside. */
  readonly moving: { takeName: string; against?: string | undefined } | undefined
  readonly takeName: string
  /** Another take, or the clean reference, that stands in the source's place. */
  readonly against: { name: string; reference: boolean } | undefined
  /** Names of both sides where one step is seen alone. */
  readonly named: { left: string; right: string } | undefined
  /** The source is seen with its own pixels. */
  readonly own: boolean
}

/** What stands on the left: the source, or what was put in its place. */
export function leftName({ moving, against, named, own }: Standing): string {
  if (moving) {
    return moving.against === undefined ? 'source, enlarged plainly' : `take ${moving.against}`
  }
  if (named) {
    return named.left
  }
  if (against) {
    return against.reference ? 'reference' : `take ${against.name}`
  }
  return own ? 'source, own pixels' : 'source, enlarged plainly'
}

export function rightName({ moving, takeName, named }: Standing): string {
  return named?.right ?? `take ${moving?.takeName ?? takeName}`
}

/** Whether another take stands in the source's place. */
export function isOtherTake({ moving, against }: Standing): boolean {
  return moving ? moving.against !== undefined : against !== undefined && !against.reference
}
