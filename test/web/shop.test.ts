import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayText, readDay } from '@/core/model/shop/hours-text'
import { DEFAULT_SHOP, hoursOf } from '@/core/model/shop/default-shop'
import { ShopSettings } from '@/core/model/shop/shop'
import { readCatalogue, writeCatalogue } from '@/core/model/catalogue/files'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { readShop, valuesOf } from '@/web/shop/shop-values'

describe('the hours of a day, as they are typed', () => {
  it('reads the usual ways of writing them', () => {
    const read = (text: string) => {
      const out = readDay(text, 2)
      return out.ok ? out.value.map((s) => [s.fromMinute, s.toMinute]) : out.error.code
    }
    expect(read('8-12, 13:30 – 17')).toEqual([
      [480, 720],
      [810, 1020],
    ])
    expect(read('')).toEqual([])
    expect(read('0-24')).toEqual([[0, 1440]])
    expect(read('17-8')).toBe('upside_down')
    expect(read('8-12, 11-14')).toBe('hours_overlap')
    expect(read('morning')).toBe('hours_unreadable')
    expect(read('8:75-12')).toBe('hours_unreadable')
  })
  it('what is written is read back', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 1440 }), { minLength: 2, maxLength: 8 }), (marks) => {
        const sorted = [...marks].sort((a, b) => a - b)
        const week = Array.from({ length: Math.floor(sorted.length / 2) }, (_, i) => ({
          day: 3,
          fromMinute: sorted[2 * i] ?? 0,
          toMinute: sorted[2 * i + 1] ?? 0,
        }))
        const back = readDay(dayText(week, 3), 3)
        expect(back.ok && back.value).toEqual(week)
      }),
    )
  })
})

describe('the form of the shop', () => {
  it('loses nothing between settings and fields', () => {
    for (const settings of [DEFAULT_SHOP, DEMO_SETTINGS]) {
      const back = readShop(valuesOf(settings))
      expect(back).toEqual({ ok: true, value: settings })
    }
  })
  it('says every fault at its own field, all at once, and takes nothing', () => {
    const values = valuesOf(DEMO_SETTINGS)
    const [first] = values.people
    if (!first) throw new Error('nobody')
    const out = readShop({
      ...values,
      days: values.days.map((d, i) => (i === 1 ? '17-8' : d)),
      closed: '2026-02-30 never',
      taxPercent: 'much',
      currency: 'euro',
      people: [{ ...first, pace: '0', away: '2026-08-14 to 2026-08-03' }],
    })
    expect(out.ok ? [] : out.faults.map((f) => f.field).sort()).toEqual([
      'closed',
      'currency',
      'days.1',
      'people.0.away',
      'people.0.pace',
      'taxPercent',
    ])
    expect(out.ok ? [] : out.faults.every((f) => f.text.length > 10)).toBe(true)
  })
  it('two stretches of one day may touch and not overlap', () => {
    const at = (fromMinute: number, toMinute: number) => ({ day: 0, fromMinute, toMinute })
    const read = (...week: object[]) => ShopSettings.safeParse({ ...DEFAULT_SHOP, week }).success
    expect(read(at(480, 720), at(720, 900))).toBe(true)
    expect(read(at(480, 721), at(720, 900))).toBe(false)
  })
})

describe('the shop in a catalogue file', () => {
  it('goes out and comes back; hours of old files are read', () => {
    const shop = { ...EMPTY_CATALOGUE, hours: hoursOf(DEMO_SETTINGS), shop: DEMO_SETTINGS }
    const back = readCatalogue(writeCatalogue(shop, []))
    expect(back.ok && back.value.hours).toEqual(shop.hours)
    expect(back.ok && back.value.shop).toEqual(DEMO_SETTINGS)
    const old = JSON.stringify({
      format: 'cuirass/catalogue@1',
      hours: { days: [0, 5], fromMinute: 540, toMinute: 600 },
    })
    const read = readCatalogue(old)
    expect(read.ok && read.value.hours).toEqual({
      week: [
        { day: 0, fromMinute: 540, toMinute: 600 },
        { day: 5, fromMinute: 540, toMinute: 600 },
      ],
      closed: [],
    })
  })
})
