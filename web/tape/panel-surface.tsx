'use client'

import { taped } from '@/core/model/vehicle/resize'
import type { Panel } from '@/core/model/vehicle/schema'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'

/** What a panel is made of, and where it rolls over. */
export function PanelSurface({
  panel,
  change,
  fmt,
}: {
  panel: Panel
  change: (f: (panel: Panel) => Panel) => void
  fmt: Formatter
}) {
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  return (
    <>
      <div className="col-6 col-md-3">
        <label className="form-label" htmlFor="surface-material">
          Surface
        </label>
        <WordSelect
          list="material"
          locale={fmt.units.locale}
          id="surface-material"
          className="form-select"
          value={panel.surface.material}
          onCode={(material) => change((p) => ({ ...p, surface: { ...p.surface, material } }))}
        />
      </div>
      <div className="col-6 col-md-2">
        <label className="form-label" htmlFor="surface-thickness">
          Thickness, mm
        </label>
        <NumberInput
          id="surface-thickness"
          className="form-control"
          aria-label="Thickness in millimetres"
          optional
          digits={1}
          value={panel.surface.thicknessMm}
          max={100}
          onValue={(thicknessMm) => change((p) => ({ ...p, surface: { ...p.surface, thicknessMm } }))}
        />
      </div>
      <div className="col-6 col-md-2">
        <label className="form-label" htmlFor="nose-at">
          Nose or roll-over
        </label>
        <WordSelect
          list="at"
          none="none"
          id="nose-at"
          className="form-select"
          value={panel.nose?.at ?? ''}
          onCode={(at) =>
            change((p) =>
              taped(
                {
                  ...p,
                  nose:
                    at === '' ? null : { at: at, radiusMm: p.nose?.radiusMm ?? 60, angleDeg: p.nose?.angleDeg ?? 80 },
                },
                'nose',
              ),
            )
          }
        />
      </div>
      {panel.nose && (
        <>
          <div className="col-3 col-md-2">
            <label className="form-label" htmlFor="nose-radius">
              Nose radius
            </label>
            <LengthInput
              id="nose-radius"
              className="form-control"
              aria-label="Nose radius"
              mm={panel.nose.radiusMm}
              unit={unit}
              format={format}
              max={5000}
              onValue={(mm) =>
                change((p) => taped({ ...p, nose: p.nose && { ...p.nose, radiusMm: mm ?? p.nose.radiusMm } }, 'nose'))
              }
            />
          </div>
          <div className="col-3 col-md-2">
            <label className="form-label" htmlFor="nose-angle">
              Nose angle °
            </label>
            <NumberInput
              id="nose-angle"
              className="form-control"
              aria-label="Nose angle"
              min={1}
              max={270}
              value={panel.nose.angleDeg}
              onValue={(v) =>
                change((p) => taped({ ...p, nose: p.nose && { ...p.nose, angleDeg: v ?? p.nose.angleDeg } }, 'nose'))
              }
            />
          </div>
        </>
      )}
    </>
  )
}
