import { defineStore } from 'pinia'
import { ref } from 'vue'
import { Problem } from '@/api/client'
import { forget, type Unfinished, unfinished, upload } from '@/api/upload'
import { type Series, seriesAmong } from '@/view/series'
import { tarOf } from '@/view/tar'
import { bytes } from '@/view/words'

export interface Upload {
  key: number
  name: string
  bytes: number
  sent: number
  startedAt: number
  problem: string
  stop: () => void
}

/** Files on their way in: one at a time, the others wait. */
export const useUploads = defineStore('uploads', () => {
  const uploads = ref<Upload[]>([])
  /** Bytes of the largest file the server takes in; told with the session. */
  const largest = ref(Infinity)
  /** Files whose sending broke off with an earlier page. */
  const broken = ref<Unfinished[]>([])
  let nextKey = 1
  let chain: Promise<void> = Promise.resolve()

  async function findBroken() {
    broken.value = await unfinished().catch(() => [])
  }

  async function forgetBroken(key: string) {
    broken.value = broken.value.filter((one) => one.key !== key)
    await forget(key).catch(() => undefined)
  }

  /** Series of pictures among files that were dropped, until it is said what to do with them. */
  const offered = ref<Series<File>[]>([])

  /** Takes files in at once; numbered pictures wait until it is said whether they are one clip. */
  function offer(files: Iterable<File>) {
    const { series, rest } = seriesAmong(files)
    offered.value = [...offered.value, ...series]
    add(rest)
  }

  /** @param rate frames a second for clips of them; none takes each picture in by itself */
  function settle(rate: string | undefined) {
    for (const one of offered.value) {
      if (rate === undefined) {
        add(one.files)
      } else {
        add([tarOf(one.files, `${one.title}.tar`)], { rate })
      }
    }
    offered.value = []
  }

  function add(files: Iterable<File>, more: Record<string, string> = {}) {
    for (const file of files) {
      broken.value = broken.value.filter((one) => one.name !== file.name || one.bytes !== file.size)
      const stop = new AbortController()
      const key = nextKey++
      uploads.value.push({
        key,
        name: file.name,
        bytes: file.size,
        sent: 0,
        startedAt: 0,
        problem: refused(file),
        stop: () => {
          stop.abort()
          dismiss(key)
        },
      })
      if (refused(file)) {
        continue
      }
      chain = chain.then(() => run(key, file, stop.signal, more))
    }
  }

  /** Why a file is not even sent; empty where it is. */
  function refused(file: File): string {
    if (file.size === 0) {
      return `${file.name} is empty: there is nothing in it. Copy it anew from where it came, then drop it again`
    }
    return file.size > largest.value
      ? `${file.name} is ${bytes(file.size)}; at most ${bytes(largest.value)} can be taken in here`
      : ''
  }

  async function run(key: number, file: File, signal: AbortSignal, more: Record<string, string>) {
    const entry = () => uploads.value.find((one) => one.key === key)
    const begun = entry()
    if (!begun || signal.aborted) {
      return
    }
    begun.startedAt = Date.now()
    try {
      await upload(
        file,
        (sent) => {
          const now = entry()
          if (now) {
            now.sent = sent
          }
        },
        signal,
        more,
      )
      dismiss(key)
    } catch (error) {
      const failed = entry()
      if (failed) {
        failed.problem = error instanceof Problem ? error.message : `${file.name} could not be sent`
      }
    }
  }

  function dismiss(key: number) {
    uploads.value = uploads.value.filter((one) => one.key !== key)
  }

  return { uploads, largest, broken, offered, add, offer, settle, dismiss, findBroken, forgetBroken }
})
