'use client'

import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import { useMemo, useState } from 'react'
import { SCHOOLS, type School } from '@/core/model/method/method-data'
import { vetoes } from '@/core/stages/film/vetoes'
import { METHODS, type Method } from '@/core/model/method/schema'
import { reckon } from '@/core/reckon/reckon'
import { setShopMethod } from '@/web/actions/shop'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { call } from '@/web/kit/call'
import { LengthInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { findingText } from '@/web/words/findings'
import { faultText } from '@/web/words/faults'

/** Which list of words names the choices of a school. */
const LIST: Record<School, string> = {
  order: 'order',
  tension: 'tension',
  liner: 'liner',
  wet: 'wet',
  hardware: 'hardwareSchool',
  edges: 'edges',
  layWarm: 'layWarm',
  direction: 'direction',
  heatSource: 'heatSource',
  wheelArch: 'wheelArch',
  seals: 'seals',
  plainEdges: 'plainEdges',
  coverage: 'coverage',
}

/** What a school is about, for whoever works the other way. */
const ABOUT: Record<School, string> = {
  order: 'Flats first, or the shallow recesses before them. Changes the steps of laying.',
  tension:
    'Relaxed off the panel first, tension sent to the edges, or the rim tacked and slack shrunk out: sizes, stretch and steps change.',
  liner: 'Off whole, or in halves on a hinge. Changes hands and minutes of laying.',
  wet: 'Dry felt, or a little glide fluid on it. Changes minutes of laying.',
  hardware: 'Stripped, or wrapped round. Changes minutes of taking off and of trimming.',
  edges: 'Pressed and then heated, or heated and then pressed. The film’s sheet may rule one out.',
  layWarm: 'At room temperature, warmed, or hot in channels. Changes minutes of laying and the range to reach.',
  direction: 'Every film one way, or only directional film. Changes how pieces may turn on the roll.',
  wheelArch: 'Turned in and stuck, shrunk back to the edge, or cut flush. Changes what is left there and its heat.',
  seals: 'Film tucked under seals, or cut in the gap beside them. Changes the cut side and the tuck.',
  plainEdges: 'Every plain turned edge heated and read, or heated and pressed. Changes heat points and minutes.',
  coverage: 'Round every edge, quick work with lids closed, or flush all round. Changes cut sides and what is left.',
  heatSource: 'Gun, torch, infra-red or steam. A torch for gloss only, never near solvent vapour.',
}

/** The schools of practice as this job's settings, each with what it changes here. */
export function MethodPlate() {
  const { plan, edit, fmt, mayPlan, member } = useJob('plan', 'edit', 'fmt', 'mayPlan', 'member')
  const [open, setOpen] = useState<School | null>(null)
  const [said, setSaid] = useState('')
  const { method } = plan
  const set = (part: Partial<Method>) => edit((p) => ({ ...p, method: { ...p.method, ...part } }))
  const films = plan.film.sheets.filter((f) => f.id === plan.film.mainId || plan.panels.some((p) => p.filmId === f.id))
  const ruledOut = (field: School, value: string) =>
    films.flatMap((f) => vetoes({ ...method, [field]: value }, f).filter((v) => v.field === field))
  return (
    <details className="plate mb-3" id="method">
      <summary>
        <b>Method</b>: {method.name} · bleed {fmt.text(fmt.length(method.bleedMm))} · {word('tension', method.tension)}{' '}
        · {word('order', method.order)}
      </summary>
      <fieldset disabled={!mayPlan} className="mt-2">
        <div className="row g-2 mb-2">
          <div className="col-sm-5">
            <label className="form-label" htmlFor="method-preset">
              Start from
            </label>
            <Form.Select
              id="method-preset"
              value={METHODS.find((m) => m.name === method.name)?.name ?? ''}
              onChange={(e) => {
                const preset = METHODS.find((m) => m.name === e.target.value)
                if (preset) edit((p) => ({ ...p, method: preset }))
              }}
            >
              <option value="">{METHODS.some((m) => m.name === method.name) ? 'choose' : method.name}</option>
              {METHODS.map((m) => (
                <option key={m.name} value={m.name}>
                  {m.name}
                </option>
              ))}
            </Form.Select>
          </div>
          <div className="col-sm-4">
            <label className="form-label" htmlFor="method-name">
              Called
            </label>
            <Form.Control
              id="method-name"
              maxLength={120}
              value={method.name}
              onChange={(e) => e.target.value.trim() !== '' && set({ name: e.target.value })}
            />
          </div>
          <div className="col-sm-3">
            <label className="form-label" htmlFor="method-bleed">
              Bleed
            </label>
            <LengthInput
              id="method-bleed"
              className="form-control"
              aria-label="Bleed"
              mm={method.bleedMm}
              unit={fmt.units.lengthUnit}
              format={(mm) => fmt.length(mm).text}
              min={5}
              max={200}
              onValue={(mm) => set({ bleedMm: mm ?? method.bleedMm })}
            />
          </div>
        </div>
        <Table>
          <thead>
            <tr>
              <th scope="col">School</th>
              <th scope="col">This job</th>
              <th scope="col">What it changes</th>
            </tr>
          </thead>
          <tbody>
            {(Object.keys(SCHOOLS) as School[]).map((field) => {
              const out = ruledOut(field, String(method[field]))
              return (
                <tr key={field}>
                  <td>
                    <label htmlFor={`method-${field}`}>{word('school', field)}</label>
                  </td>
                  <td style={{ minWidth: 180 }}>
                    <Form.Select
                      size="sm"
                      id={`method-${field}`}
                      value={String(method[field])}
                      onChange={(e) => set({ [field]: e.target.value })}
                    >
                      {SCHOOLS[field].map((value) => (
                        <option key={value} value={value}>
                          {word(LIST[field], value, fmt.units.locale)}
                          {ruledOut(field, value).length > 0 ? ' (ruled out)' : ''}
                        </option>
                      ))}
                    </Form.Select>
                  </td>
                  <td>
                    {ABOUT[field]}{' '}
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0"
                      aria-expanded={open === field}
                      onClick={() => setOpen(open === field ? null : field)}
                    >
                      On this job
                    </Button>
                    {out.map((v) => (
                      <div key={v.said.code + v.said.facts.film} className="text-danger">
                        {findingText(v.said, fmt)}
                      </div>
                    ))}
                    {open === field && <Compared field={field} />}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </Table>
        {(member.role === 'owner' || member.role === 'lead') && (
          <div className="d-flex gap-2 align-items-center mt-2">
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() =>
                void call(setShopMethod, method).then((out) =>
                  setSaid(out.ok ? 'New jobs start with this method.' : faultText(out.error)),
                )
              }
            >
              Make it the shop’s own
            </Button>
            <span className="label" role="status">
              {said}
            </span>
          </div>
        )}
      </fieldset>
    </details>
  )
}

/** The job reckoned again with each choice of one school. */
function Compared({ field }: { field: School }) {
  const { plan, catalogue, ledger, fmt } = useJob('plan', 'catalogue', 'ledger', 'fmt')
  // Stretch is solved for every school; layouts only for the one that is taken: all of them are first layouts here.
  const alike = useMemo(() => {
    const { solutions, ...rest } = catalogue
    return solutions ? { ...rest, solutions: { ...solutions, layout: {} } } : rest
  }, [catalogue])
  const rows = useMemo(
    () =>
      SCHOOLS[field].map((value) => {
        const { figures } = reckon({ ...plan, method: { ...plan.method, [field]: value } }, alike, ledger)
        return { value, figures }
      }),
    [plan, alike, ledger, field],
  )
  return (
    <Table className="my-1" style={{ maxWidth: 520 }}>
      <thead>
        <tr>
          <th scope="col">{word('school', field)}</th>
          <th scope="col" className="n">
            Film used, first layout
          </th>
          <th scope="col" className="n">
            Worst stretch
          </th>
          <th scope="col" className="n">
            Crew hours
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.value} style={r.value === String(plan.method[field]) ? { fontWeight: 650 } : undefined}>
            <td>{word(LIST[field], r.value, fmt.units.locale)}</td>
            <td className="n">
              <Fig id="rail/film_used" among={r.figures} />
            </td>
            <td className="n">
              <Fig id="rail/worst_stretch" among={r.figures} />
            </td>
            <td className="n">
              <Fig id="rail/crew_minutes" among={r.figures} />
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}
