import { asProblem, type ClipView, Problem, xsrfToken } from './client'

/** Sends one file. XMLHttpRequest, because fetch cannot tell how far an upload is. */
export function upload(file: File, progress: (sent: number) => void, signal: AbortSignal): Promise<ClipView> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', `/api/clips?name=${encodeURIComponent(file.name)}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.setRequestHeader('X-XSRF-TOKEN', xsrfToken())
    request.responseType = 'json'
    request.upload.onprogress = (event) => progress(event.loaded)
    request.onload = () => {
      if (request.status >= 200 && request.status < 300) {
        resolve(request.response as ClipView)
      } else {
        reject(asProblem(request.status, request.response))
      }
    }
    request.onerror = () =>
      reject(new Problem(0, `${file.name} did not arrive: the connection broke. Drop it again`))
    request.onabort = () => reject(new DOMException('stopped', 'AbortError'))
    signal.addEventListener('abort', () => request.abort())
    request.send(file)
  })
}
