import type { ReactNode } from 'react'
import Form from 'react-bootstrap/Form'
import { get, useFormContext, type FieldPath } from 'react-hook-form'
import type { ShopValues } from './shop-values'

/** A field of the shop with its label, and what is wrong with it right below. */
export function ShopField({
  name,
  label,
  rows,
  hidden = false,
  children,
  ...rest
}: {
  name: FieldPath<ShopValues>
  label: string
  /** Lines of text; one line where it is not given. */
  rows?: number
  /** The label is for readers only: a table's head shows it. */
  hidden?: boolean
  placeholder?: string
  /** Choices, where it is a choice. */
  children?: ReactNode
}) {
  const { register, formState } = useFormContext<ShopValues>()
  const fault: { message?: string } | undefined = get(formState.errors, name)
  const id = `shop-${name}`
  const common = {
    id,
    size: 'sm' as const,
    isInvalid: fault !== undefined,
    'aria-invalid': fault ? true : undefined,
    'aria-describedby': fault ? `${id}-fault` : undefined,
    ...register(name),
    ...rest,
  }
  return (
    <div>
      <Form.Label htmlFor={id} className={hidden ? 'visually-hidden' : undefined}>
        {label}
      </Form.Label>
      {children ? (
        <Form.Select {...common}>{children}</Form.Select>
      ) : rows ? (
        <Form.Control as="textarea" rows={rows} {...common} />
      ) : (
        <Form.Control {...common} />
      )}
      {fault && (
        <p className="text-danger mb-0" id={`${id}-fault`}>
          {fault.message}
        </p>
      )}
    </div>
  )
}
