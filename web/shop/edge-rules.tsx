import Table from 'react-bootstrap/Table'
import { CUT_RULES, type CutRule } from '@/core/model/edge/cut-rules'
import { ruleCanCut } from '@/core/model/edge/cut-goes'
import { EDGE_RULES } from '@/core/model/edge/edge-data'
import { CUT_SIDES, EDGE_MEETS } from '@/core/model/vehicle/kinds'
import { word } from '@/web/words/names'
import { RuleMoves } from './rule-moves'
import { ShopField } from './shop-field'

const LISTS = {
  meets: 'edge',
  gap: 'gapClass',
  film: 'filmClass',
  arch: 'wheelArch',
  seals: 'seals',
  wish: 'coverage',
  opens: 'opens',
  seal: 'sealState',
} as const

/** When a row holds, in words. */
function when(rule: CutRule): string {
  return (Object.keys(LISTS) as (keyof typeof LISTS)[])
    .flatMap((key) => {
      const codes = rule[key] as readonly string[] | undefined
      return codes ? [codes.map((c) => word(LISTS[key], c)).join(' or ')] : []
    })
    .join('; ')
}

/** The table that decides each edge: what a shop does otherwise is typed here, and each save is a version. */
export function EdgeRules() {
  return (
    <details className="plate mb-3" id="edge-rules">
      <summary>
        <b>Edge rules</b> <span className="label">where each edge is cut, and how much film is left</span>
      </summary>
      <p className="label mt-2">
        Exactly one row holds for each edge. Common practice, no source: what this shop does otherwise is chosen here
        and moves every open job; an edge somebody chose by hand stays as it is.
      </p>
      <div className="scroll-x">
        <Table>
          <thead>
            <tr>
              <th>When</th>
              <th>Cut</th>
              <th>Because</th>
            </tr>
          </thead>
          <tbody>
            {CUT_RULES.map((r) => (
              <tr key={r.id}>
                <td>{when(r)}</td>
                <td style={{ minWidth: 230 }}>
                  <ShopField hidden name={`edgeCut.${r.id}`} label={`Cut, ${when(r)}`}>
                    <option value="">{word('cutSide', r.cut)} (usual)</option>
                    {CUT_SIDES.filter((c) => c !== r.cut && c !== 'none' && ruleCanCut(r, c)).map((c) => (
                      <option key={c} value={c}>
                        {word('cutSide', c)}
                      </option>
                    ))}
                  </ShopField>
                </td>
                <td>{word('edgeWhy', r.id)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <div className="row g-2 mt-1">
        {EDGE_MEETS.map((m) => (
          <div key={m} className="col-6 col-md-2">
            <ShopField
              name={`edgeLeave.${m}`}
              label={`${word('edge', m)}, mm`}
              placeholder={`usual ${EDGE_RULES[m].wrapUnderMm}`}
            />
          </div>
        ))}
      </div>
      <RuleMoves />
    </details>
  )
}
