// @vitest-environment node
import { renderToBuffer } from '@react-pdf/renderer'
import { createElement } from 'react'
import { inflateSync } from 'node:zlib'
import { expect, it } from 'vitest'
import { handoverOf } from '@/core/stages/handover/handover'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { HandoverDocument } from '@/web/handover/handover-document'
import { pointName } from '@/web/handover/point-name'
import { formatter } from '@/web/words/format'
import { catalogue } from '../fixtures/plans'

const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const paper = (job: number, change: (p: Plan) => Plan = (p) => p) => {
  const plan = change(Plan.parse(DEMO_JOBS[job]?.make()))
  const handover = handoverOf(plan, reckon(plan, catalogue, []), catalogue.stock, [])
  return renderToBuffer(
    createElement(HandoverDocument, {
      plan,
      handover,
      fmt,
      shop: 'Saltmarsh Film & Wrap',
      printedAt: '20 Nov 2026',
      openWords: [],
      pointName,
    }) as never,
  )
}
/** Text-showing operators per page, read from the inflated page streams by nothing but the PDF's own syntax. */
function pages(pdf: Buffer): number[] {
  const text = pdf.toString('latin1')
  const out: number[] = []
  for (const m of text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)) {
    let content: string
    try {
      content = inflateSync(Buffer.from(m[1] ?? '', 'latin1')).toString('latin1')
    } catch {
      continue
    }
    const shown = content.match(/T[jJ]\b/g)?.length ?? 0
    if (/\bBT\b/.test(content) && shown > 0) out.push(shown)
  }
  return out
}

it('is a PDF of as many pages as it takes', async () => {
  const [short, long] = await Promise.all([paper(4), paper(0)])
  for (const pdf of [short, long]) {
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    expect(pdf.subarray(-6).toString()).toContain('%%EOF')
  }
  expect(pages(short)).toHaveLength(1)
  expect(pages(long).length).toBeGreaterThan(1)
})
it('takes a name with markup, emoji and letters beyond Latin-1 as text', async () => {
  const pdf = await paper(4, (p) => ({ ...p, name: '<script>alert(1)</script> Łódź 🙂'.slice(0, 120) }))
  expect(pages(pdf)).toHaveLength(1)
})
