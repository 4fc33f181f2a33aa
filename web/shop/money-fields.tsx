import Form from 'react-bootstrap/Form'
import { useFormContext } from 'react-hook-form'
import { ShopField } from './shop-field'
import type { ShopValues } from './shop-values'

/** Currency, tax and margin; whether front edges go deeper for the winter's salt; what new people's figures are in. */
export function MoneyFields() {
  const { register } = useFormContext<ShopValues>()
  return (
    <section className="plate mb-3" aria-label="Money and winter">
      <h2>Money and winter</h2>
      <div className="row g-3">
        <div className="col-md-2">
          <ShopField name="currency" label="Currency" placeholder="EUR" />
        </div>
        <div className="col-md-2">
          <ShopField name="taxPercent" label="Tax, %" />
        </div>
        <div className="col-md-3 align-self-end">
          <Form.Check type="checkbox" id="tax-included" label="Prices hold the tax" {...register('taxIncluded')} />
        </div>
        <div className="col-md-2">
          <ShopField name="marginPercent" label="Margin, %" />
        </div>
        <div className="col-md-3 align-self-end">
          <Form.Check type="checkbox" id="winter" label="Winter: front edges deeper" {...register('winter')} />
        </div>
        <div className="col-md-2">
          <ShopField name="units.lengthUnit" label="New people: lengths in">
            {(['mm', 'cm', 'in'] as const).map((unit) => (
              <option key={unit}>{unit}</option>
            ))}
          </ShopField>
        </div>
        <div className="col-md-2">
          <ShopField name="units.tempUnit" label="temperatures in">
            <option value="C">°C</option>
            <option value="F">°F</option>
          </ShopField>
        </div>
        <div className="col-md-3">
          <ShopField name="units.locale" label="words and dates">
            <option value="en-GB">British English</option>
            <option value="en-US">American English</option>
          </ShopField>
        </div>
      </div>
    </section>
  )
}
