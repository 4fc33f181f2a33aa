import type { Consumable } from '@/core/engines/edge/consumables'
import { Fig } from '@/web/job/figure'
import { word } from '@/web/words/names'

/** What is used up beside the film: tapes by the metre with their working, the rest counted. */
export function Supplies({ consumables }: { consumables: readonly Consumable[] }) {
  return (
    <section className="plate mb-3" aria-label="Used up beside the film">
      <h2 className="h6 mb-1">Used up beside the film</h2>
      <dl className="supplies">
        {consumables.map((c) => (
          <div key={c.id}>
            <dt>{word('supply', c.kind)}</dt>
            <dd>
              <Fig id={`supply/${c.kind}`} />
            </dd>
          </div>
        ))}
      </dl>
      <p className="label mb-0">
        Tape with an end to pull by. Primer only thinly, in deep recesses; its sheet and good air come first.
      </p>
    </section>
  )
}
