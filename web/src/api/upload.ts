import { defaultOptions, type DetailedError, Upload } from 'tus-js-client'
import { asProblem, Problem, xsrfToken } from './client'

/** How long to wait before each further try: a server that starts again is back within a minute. */
const RETRIES_MS = [500, 1000, 2000, 4000, 8000, 15_000, 30_000]
const PIECE = 32 << 20

/** A file that was only sent in part before this page was opened. */
export interface Unfinished {
  key: string
  name: string
  bytes: number
}

/**
 * Sends one file, by the open tus protocol: what has arrived of it before is not sent again, and a connection that breaks is
 * taken up anew.
 */
export function upload(
  file: File,
  progress: (sent: number) => void,
  signal: AbortSignal,
  more: Record<string, string> = {},
): Promise<void> {
  return new Promise((resolve, reject) => {
    const sending = new Upload(file, {
      endpoint: '/api/uploads',
      chunkSize: PIECE,
      retryDelays: RETRIES_MS,
      metadata: { filename: file.name, ...more },
      removeFingerprintOnSuccess: true,
      onBeforeRequest: (request) => request.setHeader('X-XSRF-TOKEN', xsrfToken()),
      onProgress: progress,
      onSuccess: () => resolve(),
      onError: (error) => reject(problemOf(file.name, error)),
    })
    signal.addEventListener('abort', () => {
      void sending.abort(true).catch(() => undefined)
      reject(new DOMException('stopped', 'AbortError'))
    })
    sending
      .findPreviousUploads()
      .then((before) => {
        if (before[0]) {
          sending.resumeFromPreviousUpload(before[0])
        }
        sending.start()
      })
      .catch(reject)
  })
}

export function problemOf(name: string, error: Error | DetailedError): Problem {
  const response = 'originalResponse' in error ? error.originalResponse : null
  if (!response || response.getStatus() === 0) {
    return new Problem(
      0,
      `${name} did not arrive whole: the server does not answer. Drop it again, and it goes on from there`,
    )
  }
  let body: unknown
  try {
    body = JSON.parse(response.getBody())
  } catch {
    body = undefined
  }
  return asProblem(response.getStatus(), body)
}

/** Files whose sending broke off with the page; dropped again they go on. */
export async function unfinished(): Promise<Unfinished[]> {
  const all = (await defaultOptions.urlStorage?.findAllUploads()) ?? []
  return all.map((one) => ({
    key: one.urlStorageKey,
    name: one.metadata['filename'] ?? 'a file',
    bytes: one.size ?? 0,
  }))
}

export async function forget(key: string): Promise<void> {
  await defaultOptions.urlStorage?.removeUpload(key)
}
