/** How far off a figure is, with its direction in words rather than a sign alone. */
export function WithinNumber({ value, text }: { value: number; text: string }) {
  return (
    <>
      {text} {Math.abs(value) < 0.0005 ? '' : value > 0 ? 'more' : 'less'}
    </>
  )
}
