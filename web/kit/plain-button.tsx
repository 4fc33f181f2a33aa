'use client'

import type { ComponentPropsWithRef } from 'react'

/** A button that looks like what it stands on: a figure, a column's head, a dimension of a drawing. */
export const PlainButton = (props: ComponentPropsWithRef<'button'>) => (
  <button type="button" {...props} className={`bare ${props.className ?? ''}`} />
)
