import { describe, expect, it } from 'vitest'
import { qrCode } from '@/web/roll/qr'

describe('a label’s code', () => {
  it('has the sides and the three finder patterns of ISO/IEC 18004, 6.3 and 7.3.2', () => {
    const { side, runs } = qrCode('https://wrap.example/jobs/5a170000-0000-4000-8000-000000000001/bay?piece=bonnet-1')
    expect((side - 17) % 4).toBe(0)
    const dark = new Set(runs.flatMap(([x, y, run]) => Array.from({ length: run }, (_, i) => `${x + i} ${y}`)))
    expect(dark.size).toBe(runs.reduce((n, [, , run]) => n + run, 0))
    const finder = (left: number, top: number) =>
      Array.from({ length: 7 }, (_, y) =>
        Array.from({ length: 7 }, (_, x) => (dark.has(`${left + x} ${top + y}`) ? '#' : '.')).join(''),
      )
    const pattern = ['#######', '#.....#', '#.###.#', '#.###.#', '#.###.#', '#.....#', '#######']
    for (const [x, y] of [
      [0, 0],
      [side - 7, 0],
      [0, side - 7],
    ] as const)
      expect(finder(x, y)).toEqual(pattern)
    expect(finder(side - 7, side - 7)).not.toEqual(pattern)
  })
})
