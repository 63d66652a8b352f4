/**
 * Runs what can wait one after another, and only while nothing more urgent is asked for; what was given up before its turn
 * costs nothing.
 */
export class Queue {
  private readonly waiting: { run: () => Promise<unknown>; signal: AbortSignal }[] = []
  private running = false
  private urgent = 0

  /** Holds the queue until the returned function is called. */
  hold(): () => void {
    this.urgent++
    let held = true
    return () => {
      if (held) {
        held = false
        this.urgent--
        void this.next()
      }
    }
  }

  add<T>(run: () => Promise<T>, signal: AbortSignal): Promise<T> {
    return new Promise<T>((give, refuse) => {
      signal.addEventListener('abort', () => refuse(new DOMException('given up', 'AbortError')), {
        once: true,
      })
      this.waiting.push({ run: () => run().then(give, refuse), signal })
      void this.next()
    })
  }

  private async next() {
    if (this.running || this.urgent > 0) {
      return
    }
    const one = this.waiting.shift()
    if (!one) {
      return
    }
    if (!one.signal.aborted) {
      this.running = true
      await one.run()
      this.running = false
    }
    void this.next()
  }
}

/** Loupes, cells and figures: all that comes behind what the glass shows. */
export const behindTheGlass = new Queue()
