import { describe, expect, it } from 'vitest'
import { seriesAmong } from './series'
import { tarOf } from './tar'

const named = (...names: string[]) => names.map((name) => ({ name }))

describe('a series of pictures', () => {
  it('is told by names that differ in their number', () => {
    const { series, rest } = seriesAmong(
      named('quay_0010.png', 'quay_0008.png', 'quay_0009.png', 'notes.txt', 'quay_0013.PNG', 'one_1.tif'),
    )
    expect(series).toHaveLength(1)
    expect(series[0]?.title).toBe('quay 8-13.png')
    expect(series[0]?.files.map((file) => file.name)).toEqual([
      'quay_0008.png',
      'quay_0009.png',
      'quay_0010.png',
      'quay_0013.PNG',
    ])
    expect(series[0]?.missing).toEqual([11, 12])
    expect(rest.map((file) => file.name)).toEqual(['notes.txt', 'one_1.tif'])
  })

  it('is named by its numbers alone where nothing else is shared', () => {
    expect(seriesAmong(named('1.jpg', '2.jpg', '3.jpg')).series[0]?.title).toBe('Pictures 1-3.jpg')
  })
})

describe('a tar of files', () => {
  it('has headers, contents and padding where the form has them', async () => {
    const file = tarOf(
      [new File(['hello'], 'a_1.png', { lastModified: 5 }), new File(['x'.repeat(512)], 'a_2.png')],
      'a.tar',
    )
    expect(file.size).toBe(512 + 512 + 512 + 512 + 1024)
    const bytes = new Uint8Array(await file.arrayBuffer())
    const text = (from: number, length: number) =>
      new TextDecoder().decode(bytes.subarray(from, from + length))
    expect(text(0, 8)).toBe('a_1.png\0')
    expect(text(124, 12)).toBe('00000000005\0')
    expect(text(257, 8)).toBe('ustar\0' + '00')
    expect(text(512, 5)).toBe('hello')
    expect(text(1024, 7)).toBe('a_2.png')
    // POSIX: the sum of the header's bytes with the sum's own place taken for blanks
    const sum = bytes.subarray(0, 512).reduce((all, byte, i) => all + (i >= 148 && i < 156 ? 32 : byte), 0)
    expect(parseInt(text(148, 6), 8)).toBe(sum)
  })
})
