import { formatter, type MemberUnits } from '@/web/words/format'

/** Who changed the shop's settings, and when. */
export function ShopHistory({
  rows,
  units,
}: {
  rows: { number: number; by: string; at: string }[]
  units: MemberUnits
}) {
  const fmt = formatter(units)
  if (rows.length === 0) return null
  return (
    <section className="plate mb-3" aria-label="Versions">
      <h2>Versions</h2>
      <ul className="list-unstyled mb-0">
        {rows.map((row) => (
          <li key={row.number}>
            <b>{row.number}</b> {row.by}, {fmt.moment(row.at)}
          </li>
        ))}
      </ul>
    </section>
  )
}
