'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { FormProvider, useForm, type FieldPath } from 'react-hook-form'
import type { ShopSettings } from '@/core/model/shop/shop'
import { saveShop } from '@/web/actions/shop'
import { call } from '@/web/kit/call'
import { useHydrated } from '@/web/kit/use-hydrated'
import { useOnce } from '@/web/kit/use-once'
import { faultText } from '@/web/words/faults'
import { EdgeRules } from './edge-rules'
import { GunFields } from './gun-fields'
import { HoursFields } from './hours-fields'
import { MoneyFields } from './money-fields'
import { PeopleFields } from './people-fields'
import { SupplyFields } from './supply-fields'
import { readShop, valuesOf, type ShopValues } from './shop-values'

/** What the shop says of itself: hours, closed days, bays, hands, guns, money. Each save is a version of its own. */
export function ShopForm({
  number,
  settings,
  zones,
  mayChange,
}: {
  number: number
  settings: ShopSettings
  zones: string[]
  mayChange: boolean
}) {
  const router = useRouter()
  const alive = useHydrated()
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null)
  const form = useForm<ShopValues>({ defaultValues: valuesOf(settings) })
  const save = useOnce(async (values: ShopValues) => {
    const read = readShop(values)
    if (!read.ok) {
      for (const { field, text } of read.faults) form.setError(field as FieldPath<ShopValues>, { message: text })
      setSaid({ text: 'Nothing is saved yet: some fields cannot be taken.', bad: true })
      return
    }
    const out = await call(saveShop, { settings: read.value, basedOn: number })
    setSaid(
      out.ok
        ? { text: `Saved as version ${out.value.number}.`, bad: false }
        : { text: faultText(out.error), bad: true },
    )
    if (!out.ok) return
    form.reset(values)
    router.refresh()
  })
  return (
    <FormProvider {...form}>
      <Form noValidate onSubmit={form.handleSubmit(save)} aria-label="The shop">
        <fieldset disabled={!mayChange || !alive}>
          <HoursFields zones={zones} />
          <PeopleFields />
          <GunFields />
          <EdgeRules />
          <MoneyFields />
          <SupplyFields />
        </fieldset>
        {mayChange && (
          <div className="d-flex gap-3 align-items-center mb-4">
            <Button type="submit" disabled={!alive || form.formState.isSubmitting}>
              {form.formState.isSubmitting ? 'Saving…' : 'Save the shop'}
            </Button>
            <span className={said?.bad ? 'text-danger' : 'label'} role="status">
              {said?.text ?? (number > 0 ? `Version ${number}` : 'Not saved yet: the usual hours hold')}
            </span>
          </div>
        )}
      </Form>
    </FormProvider>
  )
}
