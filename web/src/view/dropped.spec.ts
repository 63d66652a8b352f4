import { describe, expect, it } from 'vitest'
import { droppedFiles } from './dropped'

const fileEntry = (name: string) => ({
  name,
  isFile: true,
  file: (done: (file: File) => void) => done(new File([], name)),
})
const folder = (name: string, children: unknown[]) => ({
  name,
  isFile: false,
  createReader: () => {
    // two at a time, as browsers give them in portions
    const rest = [...children]
    return { readEntries: (done: (some: unknown[]) => void) => done(rest.splice(0, 2)) }
  },
})
const data = (entries: unknown[], files: File[] = []) =>
  ({ items: entries.map((entry) => ({ webkitGetAsEntry: () => entry })), files }) as unknown as DataTransfer

describe('what is dropped', () => {
  it('is the files themselves where there is no folder', async () => {
    const file = new File([], 'a.mp4')
    expect(await droppedFiles(data([fileEntry('a.mp4')], [file]))).toEqual([file])
  })

  it('is every file in a folder, by name, without what nobody means', async () => {
    const tree = folder('reels', [
      fileEntry('reel 10.mov'),
      fileEntry('.DS_Store'),
      folder('more', [fileEntry('c.avi'), fileEntry('Thumbs.db')]),
      fileEntry('reel 2.mov'),
    ])
    const files = await droppedFiles(data([tree, fileEntry('last.mp4')]))
    expect(files.map((file) => file.name)).toEqual(['c.avi', 'reel 2.mov', 'reel 10.mov', 'last.mp4'])
  })
})
