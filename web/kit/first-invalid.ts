/**
 * The first field within a form whose text cannot be taken; it gets the hand, and its name is given back. Null: all
 * can be.
 */
export function firstInvalid(within: HTMLElement | null): string | null {
  const field = within?.querySelector<HTMLElement>('[aria-invalid="true"]:is(input, select, textarea)')
  if (!field) return null
  field.focus()
  const label = field.getAttribute('aria-label') ?? within?.querySelector(`label[for="${field.id}"]`)?.textContent
  return label?.trim() || 'A field'
}
