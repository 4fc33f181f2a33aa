import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import { useState } from 'react'
import { useFieldArray, useFormContext } from 'react-hook-form'
import { newId } from '@/web/kit/call'
import { Calibrate } from './calibrate'
import { AddRow } from './add-row'
import { ShopField } from './shop-field'
import type { ShopValues } from './shop-values'

/** Footprint of a wide nozzle at a hand's distance, mm. Assumed. */
const USUAL_SIGMA_MM = 30

const COLUMNS = [
  ['name', 'Gun'],
  ['displayC', 'Display, °C'],
  ['airC', 'Air at the film, °C'],
  ['coefficient', 'Heat transfer, W/m²K'],
  ['sigmaMm', 'Footprint, mm (sigma)'],
] as const

/** Hot-air guns: what the display says, and what of it reaches the film. Empty: not measured. */
export function GunFields() {
  const [measured, setMeasured] = useState<number | null>(null)
  const { setValue, getValues } = useFormContext<ShopValues>()
  const { fields, append, remove } = useFieldArray<ShopValues, 'guns', 'key'>({ name: 'guns', keyName: 'key' })
  return (
    <section className="plate mb-3 scroll-x" aria-label="Guns">
      <h2>Guns</h2>
      {fields.length === 0 ? (
        <p className="label">No gun yet. The display is not the air at the film: what is not measured stays empty.</p>
      ) : (
        <Table>
          <thead>
            <tr>
              {COLUMNS.map(([, label]) => (
                <th key={label}>{label}</th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {fields.map((gun, i) => (
              <tr key={gun.key}>
                {COLUMNS.map(([field, label]) => (
                  <td key={field}>
                    <ShopField hidden name={`guns.${i}.${field}`} label={`${label}, gun ${i + 1}`} />
                  </td>
                ))}
                <td>
                  <Button
                    variant="outline-secondary"
                    size="sm"
                    className="me-1"
                    aria-expanded={measured === i}
                    onClick={() => setMeasured(measured === i ? null : i)}
                  >
                    Measure
                  </Button>
                  <Button variant="outline-secondary" size="sm" onClick={() => remove(i)}>
                    Take out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {measured !== null && fields[measured] && (
        <Calibrate
          key={measured}
          displayC={Number(getValues(`guns.${measured}.displayC`)) || 350}
          sigmaMm={Number(getValues(`guns.${measured}.sigmaMm`)) || USUAL_SIGMA_MM}
          onTake={({ airC, coefficient, sigmaMm }) => {
            const options = { shouldDirty: true }
            setValue(`guns.${measured}.airC`, String(airC), options)
            setValue(`guns.${measured}.coefficient`, String(coefficient), options)
            setValue(`guns.${measured}.sigmaMm`, String(sigmaMm), options)
            setMeasured(null)
          }}
        />
      )}
      <AddRow
        label="Add a gun"
        onAdd={() => append({ id: newId(), name: '', displayC: '350', airC: '', coefficient: '', sigmaMm: '' })}
      />
    </section>
  )
}
