import { ClosedDaysIn } from './closed-days-in'
import { ShopField } from './shop-field'
import './shop.scss'

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']

/** Opening hours with their breaks, closed days, bays, and the zone in which all clocks are read. */
export function HoursFields({ zones }: { zones: string[] }) {
  return (
    <section className="plate mb-3" aria-label="Hours and bays">
      <h2>Hours and bays</h2>
      <p className="label">
        A break parts a day: 08:00-12:00, 13:00-17:00. Empty: closed. Everything that reckons with hours uses this.
      </p>
      <div className="row g-3">
        <div className="col-md-5 label-beside">
          {DAYS.map((day, i) => (
            <ShopField key={day} name={`days.${i}`} label={day} placeholder="closed" />
          ))}
        </div>
        <div className="col-md-4">
          <ShopField name="closed" label="Closed days, one a line" rows={8} placeholder="2026-12-25 Christmas" />
          <ClosedDaysIn />
          <ShopField name="timeZone" label="Time zone">
            {zones.map((zone) => (
              <option key={zone}>{zone}</option>
            ))}
          </ShopField>
        </div>
        <div className="col-md-3">
          <ShopField name="bays" label="Bays, one a line" rows={4} placeholder="Bay 1" />
          <ShopField name="climate" label="Climate zone of sheets">
            <option value="mild">mild</option>
            <option value="hot">hot</option>
          </ShopField>
          <ShopField name="lockAfterMin" label="Bay tablets lock after, minutes (0: never)" />
          <ShopField name="ready" label="A vehicle counts as ready">
            <option value="check_round">once it was looked at all round</option>
            <option value="recheck">once the recheck is done</option>
            <option value="hand_over">once it is handed over</option>
          </ShopField>
        </div>
      </div>
    </section>
  )
}
