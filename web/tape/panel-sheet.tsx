'use client'

import { freeId, slug } from '@/core/plan/new-plan'
import { WordSelect } from '@/web/kit/fields'
import { MAX_PANEL_MM, type Edge, type Panel, type Recess } from '@/core/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { changePanel } from './edit-panel'
import { PanelDrawing } from './panel-drawing'

/** One panel in full: drawn to scale with its measures, its edges and what they meet, its recesses. */
export function PanelSheet({ panel }: { panel: Panel }) {
  const { edit, plan, fmt } = useJob()
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const change = (f: (p: Panel) => Panel) => edit((was) => changePanel(was, panel.id, f))
  const edge = (id: string, part: Partial<Edge>) =>
    change((p) => ({ ...p, edges: p.edges.map((e) => (e.id === id ? { ...e, ...part } : e)) }))
  const recess = (id: string, part: Partial<Recess>) =>
    change((p) => ({ ...p, recesses: p.recesses.map((r) => (r.id === id ? { ...r, ...part } : r)) }))
  const addRecess = () =>
    change((p) => ({
      ...p,
      recesses: [...p.recesses, { id: freeId(slug('recess'), p.recesses.map((r) => r.id)), name: 'Recess', mouthWidthMm: Math.min(130, p.widthMm), mouthHeightMm: Math.min(70, p.heightMm), depthMm: 20, wallDeg: 45, open: false, way: 'bridge', gapMm: 60 }],
    })) // prettier-ignore
  return (
    <section className="plate mt-3" aria-label={`${panel.name} in full`}>
      <h2>{panel.name}</h2>
      <div className="row g-3">
        <div className="col-lg-5">
          <PanelDrawing panel={panel} />
        </div>
        <div className="col-lg-7">
          <table className="tape-grid">
            <thead>
              <tr>
                <th>Edge</th>
                <th>Length</th>
                <th>Meets</th>
                <th>Neighbour</th>
              </tr>
            </thead>
            <tbody>
              {panel.edges.map((e) => (
                <tr key={e.id}>
                  <td className="px-2">{e.at}</td>
                  <td style={{ width: 100 }}>
                    <LengthInput
                      aria-label={`${panel.name}, ${e.at} edge length`}
                      mm={e.lengthMm}
                      unit={unit}
                      format={format}
                      max={MAX_PANEL_MM}
                      onValue={(mm) => edge(e.id, { lengthMm: mm ?? e.lengthMm })}
                    />
                  </td>
                  <td>
                    <WordSelect
                      list="edge"
                      aria-label={`${panel.name}, ${e.at} edge meets`}
                      value={e.meets}
                      onCode={(code) => edge(e.id, { meets: code })}
                    />
                  </td>
                  <td>
                    <select
                      aria-label={`${panel.name}, neighbour at the ${e.at}`}
                      value={e.neighbour ?? ''}
                      onChange={(ev) => edge(e.id, { neighbour: ev.target.value || null })}
                    >
                      <option value="">–</option>
                      {plan.panels
                        .filter((p) => p.id !== panel.id)
                        .map((p) => (
                          <option key={p.id} value={p.id}>
                            {p.name}
                          </option>
                        ))}
                    </select>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="col-12">
          <h3>Recesses</h3>
          {panel.recesses.length > 0 && (
            <div className="scroll-x">
              <table className="tape-grid mb-2">
                <thead>
                  <tr>
                    {[
                      'Name',
                      'Mouth width',
                      'Mouth height',
                      'Depth',
                      'Wall °',
                      'One side open',
                      'Way',
                      'Free gap',
                      '',
                    ].map((h) => (
                      <th key={h}>{h}</th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {panel.recesses.map((r) => (
                    <tr key={r.id}>
                      <td>
                        <input
                          type="text"
                          aria-label={`${r.name}, name`}
                          value={r.name}
                          maxLength={120}
                          onChange={(e) => e.target.value.trim() !== '' && recess(r.id, { name: e.target.value })}
                        />
                      </td>
                      {(
                        [
                          ['mouthWidthMm', 'mouth width', panel.widthMm],
                          ['mouthHeightMm', 'mouth height', panel.heightMm],
                          ['depthMm', 'depth', 1000],
                        ] as const
                      ).map(([field, label, max]) => (
                        <td key={field}>
                          <LengthInput
                            aria-label={`${r.name}, ${label}`}
                            mm={r[field]}
                            unit={unit}
                            format={format}
                            max={max}
                            onValue={(mm) => recess(r.id, { [field]: mm ?? r[field] })}
                          />
                        </td>
                      ))}
                      <td>
                        <NumberInput
                          aria-label={`${r.name}, wall angle`}
                          value={r.wallDeg}
                          min={5}
                          max={90}
                          onValue={(v) => recess(r.id, { wallDeg: v ?? r.wallDeg })}
                        />
                      </td>
                      <td className="text-center">
                        <input
                          type="checkbox"
                          style={{ width: 'auto' }}
                          aria-label={`${r.name}, one side open`}
                          checked={r.open}
                          onChange={(e) =>
                            recess(r.id, {
                              open: e.target.checked,
                              ...(e.target.checked ? {} : { way: 'bridge' as const }),
                            })
                          }
                        />
                      </td>
                      <td>
                        <WordSelect
                          list="recessWay"
                          without={r.open ? [] : ['feed']}
                          aria-label={`${r.name}, way`}
                          value={r.way}
                          onCode={(code) => recess(r.id, { way: code })}
                        />
                      </td>
                      <td>
                        <LengthInput
                          aria-label={`${r.name}, free gap`}
                          mm={r.gapMm}
                          unit={unit}
                          format={format}
                          max={1000}
                          optional
                          onValue={(mm) => recess(r.id, { gapMm: mm ?? 0 })}
                        />
                      </td>
                      <td>
                        <button
                          type="button"
                          className="btn btn-link btn-sm p-1"
                          aria-label={`Remove ${r.name}`}
                          onClick={() => change((p) => ({ ...p, recesses: p.recesses.filter((x) => x.id !== r.id) }))}
                        >
                          ×
                        </button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          <button type="button" className="btn btn-outline-primary btn-sm" onClick={addRecess}>
            Add a recess
          </button>
        </div>
      </div>
    </section>
  )
}
