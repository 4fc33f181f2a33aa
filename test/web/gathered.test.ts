import { describe, expect, it } from 'vitest'
import { gathered } from '@/web/actions/gathered'
import { inLine } from '@/web/actions/in-line'

const pause = (ms: number) => new Promise((r) => setTimeout(r, ms))

describe('small writes that come together', () => {
  it('wait for the one under way and are then done by one call, an answer each; other writes keep their place in line', async () => {
    const calls: (number | string)[][] = []
    const write = (n: number) =>
      gathered({ group: 'g1', line: 'l1' }, n, async (items: number[]) => {
        calls.push(items)
        await pause(10)
        return items.map((x) => x * 10)
      })
    const first = write(1)
    await pause(2)
    const rest = [2, 3, 4].map(write)
    const other = inLine('l1', async () => {
      calls.push(['plan'])
      return 'saved'
    })
    expect(await Promise.all([first, ...rest, other])).toEqual([10, 20, 30, 40, 'saved'])
    expect(calls).toEqual([[1], [2, 3, 4], ['plan']])
  })
  it('one that breaks its group breaks no other', async () => {
    const write = (n: number) =>
      gathered({ group: 'g2', line: 'l2' }, n, async (items: number[]) => {
        await pause(5)
        if (items.includes(3)) throw new Error('three')
        return items.map((x) => x * 10)
      })
    const first = write(1)
    await pause(1)
    const out = await Promise.allSettled([first, ...[2, 3, 4].map(write)])
    expect(out.map((o) => (o.status === 'fulfilled' ? o.value : 'broken'))).toEqual([10, 20, 'broken', 40])
  })
})
