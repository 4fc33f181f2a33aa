import Form from 'react-bootstrap/Form'
import { useFormContext } from 'react-hook-form'
import { ShopField } from './shop-field'
import type { ShopValues } from './shop-values'

/** Currency, tax and margin; and whether front edges go deeper for the winter's salt. */
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
      </div>
    </section>
  )
}
