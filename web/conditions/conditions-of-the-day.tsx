'use client'

import Form from 'react-bootstrap/Form'
import { MASS_KG } from '@/core/engines/conditions/conditions-data'
import type { Plan } from '@/core/model/plan/schema'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { TempField } from './temp-field'

/** What no room that film is laid in is colder or hotter than, °C. Assumed. */
const ROOM_C = { min: -20, max: 60 }

/** What the vehicle and the room need before film may be laid. */
export function ConditionsOfTheDay({ set }: { set: (part: Partial<Plan['conditions']>) => void }) {
  const { mayTape, fmt, plan } = useJob('mayTape', 'fmt', 'plan')
  return (
    <div className="col-xl-5">
      <dl className="facts">
        <dt>Air</dt>
        <dd>
          <Fig id="conditions/air" />
        </dd>
        <dt>Dew point</dt>
        <dd>
          <Fig id="conditions/dew_point" />
        </dd>
        <dt>Surface to reach</dt>
        <dd>
          <Fig id="conditions/target" />
        </dd>
        <dt>Time to warm</dt>
        <dd>
          <Fig id="conditions/warming" />
        </dd>
        <dt>To warm and dry</dt>
        <dd>
          <Fig id="conditions/lead" />
        </dd>
        <dt>In the shop by</dt>
        <dd>
          <Fig id="conditions/in_by" />
        </dd>
      </dl>
      <fieldset disabled={!mayTape} className="row g-2">
        <div className="col-6">
          <label className="form-label" htmlFor="vehicle-c">
            Vehicle arrives at °{fmt.units.tempUnit}
          </label>
          <TempField id="vehicle-c" value={plan.conditions.vehicleC} onValue={(vehicleC) => set({ vehicleC })} />
        </div>
        <div className="col-6">
          <label className="form-label" htmlFor="mass">
            Mass, kg
          </label>
          <NumberInput
            id="mass"
            className="form-control"
            aria-label="Mass in kilograms"
            optional
            min={5}
            max={40000}
            placeholder={`${MASS_KG[plan.vehicle.kind]} ?`}
            value={plan.conditions.massKg}
            onValue={(massKg) => set({ massKg })}
          />
        </div>
        <label className="col-12 d-flex gap-2 align-items-end pb-2">
          <Form.Check.Input
            type="checkbox"
            checked={plan.conditions.wet}
            onChange={(e) => set({ wet: e.target.checked })}
          />{' '}
          washed or wet
        </label>
      </fieldset>
      <fieldset disabled={!mayTape} className="row g-2 mt-1">
        <div className="col-6">
          <label className="form-label" htmlFor="room-c">
            Room on the day °{fmt.units.tempUnit}
          </label>
          <TempField id="room-c" value={plan.conditions.airC} bounds={ROOM_C} onValue={(airC) => set({ airC })} />
        </div>
        <div className="col-6">
          <label className="form-label" htmlFor="room-humidity">
            Humidity %
          </label>
          <NumberInput
            id="room-humidity"
            className="form-control"
            aria-label="Humidity on the day in per cent"
            optional
            min={0.01}
            max={1}
            scale={100}
            value={plan.conditions.humidity}
            onValue={(humidity) => set({ humidity })}
          />
        </div>
      </fieldset>
      <p className="label mb-0 mt-2">
        Left empty: as last read. One lump at one temperature, air as last read: an estimate. Read the surface before
        anything is stuck.
      </p>
    </div>
  )
}
