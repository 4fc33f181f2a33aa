'use client'

import { useCallback, useMemo, useState } from 'react'
import { EDGE_RULES } from '@/core/model/edge/edge-data'
import type { FilmSheet } from '@/core/model/film/schema'
import { choiceFor } from '@/core/model/plan/piece-choice'
import { applyChange } from '@/core/model/plan/plan-change'
import { flatMark, flatOutlines } from '@/core/engines/stretch/flat-outline'
import { feelOf } from '@/core/engines/stretch/feel'
import { spotsOver } from '@/core/engines/stretch/spots'
import { surfaceFigures } from '@/core/stages/pieces/surface-figures'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { LOOK_TEXT } from '@/web/words/stretch-words'
import { BAND_NAMES } from './bands'
import { Schools } from './schools'
import { BandKey } from './surface-picture'
import { WaysTable } from './ways-table'
import { Reasons, Spots } from '@/web/pieces/stretch-notes'
import { BeforeAndAfter } from './before-and-after'
import { useStretchMap } from './use-stretch-map'
import { OutlineButtons } from './outline-buttons'
import { StretchControls } from './stretch-controls'
import { StretchViews } from './stretch-views'
import { StretchHead } from './stretch-head'

/**
 * The stretch of one panel: in space beside its flat film, what the film feels, where it is too much, and what would
 * help.
 */
export function StretchBench({ panel, film, scan }: { panel: Panel; film: FilmSheet; scan: ScanSurface | null }) {
  const { plan, fmt, edit, mayPlan } = useJob('plan', 'fmt', 'edit', 'mayPlan')
  const [pull, setPull] = useState<'tightest' | 'even'>('even')
  const [atOnce, setAtOnce] = useState(false)
  const [turned, setTurned] = useState(false)
  const [limit, setLimit] = useState(film.stretchLimit)
  const [at, setAt] = useState<number | null>(null)
  const [grid, setGrid] = useState(true)
  const [flat, setFlat] = useState(false)
  const [before, setBefore] = useState<{ map: SurfaceMap; key: string } | null>(null)
  const choice = choiceFor(plan, panel, film)
  const { method } = plan
  // How far the film goes over the edge where it goes furthest.
  const overMm = scan ? 0 : Math.max(0, ...panel.edges.map((e) => EDGE_RULES[e.meets].wrapUnderMm))
  const flangeMm = turned ? overMm : 0
  const state = useStretchMap(panel, scan, { pull, atOnce, flangeMm })
  const { map, key } = state
  const coarse = state.coarse || state.stale
  const feel = useMemo(
    () => (map ? feelOf({ map, panel, film, choice, method, limit }) : null),
    [map, panel, film, choice, method, limit],
  )
  const own = useMemo(
    () => (map ? feelOf({ map, panel, film, choice, method }) : null),
    [map, panel, film, choice, method],
  )
  const figures = useMemo(
    () =>
      new Map(
        map && own
          ? surfaceFigures(panel, film, map, own, { pull, choice, method, scanned: scan !== null }).map((f) => [
              f.id,
              f,
            ])
          : [],
      ),
    [map, own, panel, film, pull, choice, method, scan],
  )
  const spots = useMemo(
    () => (map && feel ? spotsOver({ ...map, stretch: feel.taken }, limit) : []),
    [map, feel, limit],
  )
  const dead = useCallback(() => setFlat(true), [])
  const beforeFeel = useMemo(
    () => (before ? feelOf({ map: before.map, panel, film, choice, method, limit }) : null),
    [before, panel, film, choice, method, limit],
  )
  if (state.fault !== '' && !state.stale)
    return (
      <p className="caution">
        {panel.name}: {state.fault}
      </p>
    )
  if (!map || !feel || !own) return <p className="label">Laying film on {panel.name} …</p>
  const says = `worst stretch ${fmt.text(fmt.percent(feel.worst))}`
  const outline = choice.flat !== null && choice.flat.mark === flatMark(panel, choice)
  const toRoll = () => {
    const made = flatOutlines(map, panel, choice)
    if (made)
      edit((p) =>
        applyChange(p, { kind: 'piece', panelId: panel.id, set: { flat: { mark: flatMark(panel, choice), ...made } } }),
      )
  }
  return (
    <section aria-label={`Stretch over ${panel.name}`} className="mb-3">
      <StretchHead
        figures={figures}
        panelId={panel.id}
        asPlanned={pull === 'even' && !atOnce && flangeMm === 0}
        coarse={coarse}
        share={state.share}
      />
      <StretchControls
        pull={pull}
        setPull={setPull}
        panel={panel}
        atOnce={atOnce}
        setAtOnce={setAtOnce}
        method={method}
        limit={limit}
        setLimit={setLimit}
        grid={grid}
        setGrid={setGrid}
        overMm={overMm}
        turned={turned}
        setTurned={setTurned}
        flat={flat}
        setFlat={setFlat}
      />
      <BandKey areas={feel.areaMm2} text={(mm2) => fmt.text(fmt.area(mm2))} />
      <StretchViews
        flat={flat}
        map={map}
        feel={feel}
        film={film}
        at={at}
        setAt={setAt}
        grid={grid}
        panel={panel}
        says={says}
        dead={dead}
      />
      <p className="mb-1" role="status" style={{ minHeight: '1.5em' }}>
        {at !== null && at < feel.taken.length
          ? `Here ${fmt.text(fmt.percent(feel.taken[at] as number))}: ${BAND_NAMES[feel.band[at] ?? 0]}. ` +
            `After post-heat ${fmt.text(fmt.percent(feel.residual.heated[at] as number))} of it still pulls.`
          : 'Point at the panel or the film to read the stretch there.'}
      </p>
      <Spots spots={spots} limit={limit} />
      <Reasons bands={feel.areaMm2} />
      {feel.lookMm2 > 0 && feel.lookOver !== null && (
        <p className="mb-1">
          {film.name} {LOOK_TEXT[feel.look]} past {fmt.text(fmt.percent(feel.lookOver))} (assumed):{' '}
          {fmt.text(fmt.area(feel.lookMm2))} here.
        </p>
      )}
      {map.report.overlaps && (
        <p className="caution">The flat film would lie on itself: it takes a seam or a relief cut.</p>
      )}
      {mayPlan && (
        <OutlineButtons
          coarse={coarse}
          outline={outline}
          turned={turned}
          toRoll={toRoll}
          choice={choice}
          panel={panel}
        />
      )}
      <WaysTable panel={panel} film={film} scan={scan} onTaken={() => !coarse && setBefore({ map, key })} />
      {before && before.key !== key && beforeFeel && (
        <BeforeAndAfter
          setBefore={setBefore}
          beforeFeel={beforeFeel}
          before={before}
          film={film}
          panel={panel}
          feel={feel}
          map={map}
          says={says}
        />
      )}
      {panel.recesses.length > 0 && <Schools panel={panel} film={film} scan={scan} />}
    </section>
  )
}
