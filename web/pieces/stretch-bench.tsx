'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import dynamic from 'next/dynamic'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { EDGE_RULES } from '@/core/model/edge/edge-data'
import type { FilmSheet } from '@/core/model/film/schema'
import { choiceFor } from '@/core/model/plan/new-plan'
import { applyChange } from '@/core/model/plan/plan-change'
import { flatMark, flatOutlines } from '@/core/engines/stretch/flat-outline'
import { feelOf, solvedOf } from '@/core/engines/stretch/feel'
import { spotsOver } from '@/core/engines/stretch/spots'
import { surfaceFigures } from '@/core/stages/pieces/surface-figures'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { faultText } from '@/web/words/faults'
import { LOOK_TEXT } from '@/web/words/stretch-words'
import { BAND_NAMES } from './bands'
import { Schools } from './schools'
import { BandKey, SurfacePicture } from './surface-picture'
import type { StretchNews } from '@/web/workers/stretch.worker'
import { startQuick, startStretch } from './stretch-workers'
import { keyOf } from './use-stretch'
import { WaysTable } from './ways-table'
import { Reasons, Spots } from '@/web/pieces/stretch-notes'

const Surface3D = dynamic(() => import('./surface-3d').then((m) => m.Surface3D), {
  ssr: false,
  loading: () => <p className="label">Setting up the view …</p>,
})

interface State {
  /** What the map was solved for. */
  key: string
  map: SurfaceMap | null
  coarse: boolean
  share: number
  fault: string
}
const NOTHING: State = { key: '', map: null, coarse: true, share: 0, fault: '' }

/**
 * The stretch of one panel: in space beside its flat film, what the film feels, where it is too much, and what would
 * help.
 */
export function StretchBench({ panel, film, scan }: { panel: Panel; film: FilmSheet; scan: ScanSurface | null }) {
  const { plan, catalogue, fmt, edit, mayPlan, solved } = useJob()
  const [pull, setPull] = useState<'tightest' | 'even'>('even')
  const [atOnce, setAtOnce] = useState(false)
  const [turned, setTurned] = useState(false)
  const [limit, setLimit] = useState(film.stretchLimit)
  const [at, setAt] = useState<number | null>(null)
  const [grid, setGrid] = useState(true)
  const [flat, setFlat] = useState(false)
  const [before, setBefore] = useState<{ map: SurfaceMap; key: string } | null>(null)
  const [state, setState] = useState<State>(NOTHING)
  const choice = choiceFor(plan, panel.id)
  const { method } = plan
  const planKey = keyOf(plan, panel.id, catalogue.scans)
  // How far the film goes over the edge where it goes furthest.
  const overMm = scan ? 0 : Math.max(0, ...panel.edges.map((e) => EDGE_RULES[e.meets].wrapUnderMm))
  const flangeMm = turned ? overMm : 0
  const key = `${planKey} ${pull} ${String(atOnce)} ${flangeMm} ${scan ? scan.positions.length : 0}`
  useEffect(() => {
    const ask = { plan, panelId: panel.id, pull, atOnce, flangeMm, scan }
    const onMessage = (news: StretchNews) => {
      if (news.kind === 'tick') setState((s) => ({ ...s, share: news.share }))
      else if (news.kind === 'map') {
        setState({ key, map: news.map, coarse: news.coarse, share: news.coarse ? 0 : 1, fault: '' })
        // The finer map of the plan as it is takes the place of the coarse one in all figures.
        if (!news.coarse && pull === 'even' && !atOnce && flangeMm === 0)
          solved([{ key: planKey, value: solvedOf(news.map, feelOf(news.map, panel, film, choice, method)) }])
      } else if (news.kind === 'fault') setState({ ...NOTHING, key, coarse: false, fault: faultText(news.fault) })
    }
    // A scan is as fine as it is: there is no coarser map of it.
    if (scan) return startStretch({ kind: 'map', ...ask }, onMessage)
    let finer = () => {}
    const first = startQuick(ask, (news) => {
      onMessage(news)
      if (news.kind === 'map') finer = startStretch({ kind: 'map', ...ask }, onMessage)
    })
    return () => {
      first()
      finer()
    }
    // The key says all that the map hangs on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  const { map } = state
  const coarse = state.coarse || state.key !== key
  const feel = useMemo(
    () => (map ? feelOf(map, panel, film, choice, method, limit) : null),
    [map, panel, film, choice, method, limit],
  )
  const own = useMemo(() => (map ? feelOf(map, panel, film, choice, method) : null), [map, panel, film, choice, method])
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
    () => (before ? feelOf(before.map, panel, film, choice, method, limit) : null),
    [before, panel, film, choice, method, limit],
  )
  if (state.fault !== '' && state.key === key)
    return (
      <p className="caution">
        {panel.name}: {state.fault}
      </p>
    )
  if (!map || !feel || !own) return <p className="label">Laying film on {panel.name} …</p>
  const id = (f: string) => `surface/${panel.id}/${f}`
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
      <div className="d-flex gap-4 flex-wrap align-items-baseline mb-2">
        {(
          [
            ['Worst', 'worst'],
            ['Mean', 'mean'],
            ['To post-heat', 'post_heat'],
            ['Left after heat', 'residual'],
            ['Surface', 'area'],
          ] as const
        ).map(([label, f]) => (
          <span key={f}>
            <span className="label">{label}</span>{' '}
            <span className="fs-5">
              <Fig among={figures} id={id(f)} />
            </span>
          </span>
        ))}
        <span className="label" role="status">
          {coarse ? 'first, coarse map; a finer one follows' : 'fine map'}
        </span>
        {coarse && <progress value={state.share} max={1} aria-label="Finer map" style={{ width: 80 }} />}
      </div>
      <div className="d-flex gap-3 flex-wrap align-items-center mb-2">
        <label className="d-flex gap-2 align-items-center">
          <span className="label">Pull</span>
          <Form.Select
            size="sm"
            className="w-auto"
            aria-label="Pull"
            value={pull}
            onChange={(e) => setPull(e.target.value as typeof pull)}
          >
            <option value="even">even, as by hand</option>
            <option value="tightest">the least worst there is</option>
          </Form.Select>
        </label>
        {panel.recesses.length > 0 && (
          <label className="d-flex gap-2 align-items-center">
            <span className="label">Laid</span>
            <Form.Select
              size="sm"
              className="w-auto"
              aria-label="Laid"
              value={atOnce ? 'once' : 'method'}
              onChange={(e) => setAtOnce(e.target.value === 'once')}
            >
              <option value="method">
                {method.order === 'flats_first' ? 'flats first, by the method' : 'recesses first, by the method'}
              </option>
              <option value="once">all at once: no order is better</option>
            </Form.Select>
          </label>
        )}
        <label className="d-flex gap-2 align-items-center">
          <span className="label">Limit</span>
          <Form.Range
            min={0.005}
            max={0.4}
            step={0.005}
            value={limit}
            aria-label="Limit of stretch"
            onChange={(e) => setLimit(Number(e.target.value))}
          />
          <b>{fmt.text(fmt.percent(limit))}</b>
        </label>
        <label className="d-flex gap-2 align-items-center">
          <Form.Check.Input
            type="checkbox"
            className="mt-0"
            checked={grid}
            onChange={(e) => setGrid(e.target.checked)}
          />
          film’s grid, every {fmt.text(fmt.length(100))}
        </label>
        {overMm > 0 && (
          <label className="d-flex gap-2 align-items-center">
            <Form.Check.Input
              type="checkbox"
              className="mt-0"
              checked={turned}
              onChange={(e) => setTurned(e.target.checked)}
            />
            turned {fmt.text(fmt.length(overMm))} over the edges, heat shrinking what it can
          </label>
        )}
        <label className="d-flex gap-2 align-items-center">
          <Form.Check.Input
            type="checkbox"
            className="mt-0"
            checked={flat}
            onChange={(e) => setFlat(e.target.checked)}
          />
          flat view
        </label>
      </div>
      <BandKey areas={feel.areaMm2} text={(mm2) => fmt.text(fmt.area(mm2))} />
      <div className="d-flex gap-3 flex-wrap mt-2 align-items-start">
        {flat ? (
          <SurfacePicture
            title="On the panel"
            places={map.seen}
            map={map}
            feel={feel}
            film={film}
            text={(v) => fmt.text(fmt.percent(v))}
            at={at}
            onAt={setAt}
            grid={grid}
            id={`p-${panel.id}`}
            says={says}
          />
        ) : (
          <Surface3D map={map} band={feel.band} at={at} onAt={setAt} grid={grid} says={says} onDead={dead} />
        )}
        <SurfacePicture
          title="Flat film"
          places={map.film}
          map={map}
          feel={feel}
          film={film}
          text={(v) => fmt.text(fmt.percent(v))}
          at={at}
          onAt={setAt}
          grid={grid}
          id={`f-${panel.id}`}
          says={says}
        />
      </div>
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
        <div className="d-flex gap-2 flex-wrap my-2">
          <Button variant="outline-primary" size="sm" disabled={coarse || outline || turned} onClick={toRoll}>
            {outline ? 'On the roll as this outline' : 'Cut from the roll as this outline'}
          </Button>
          {choice.flat && (
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => edit((p) => applyChange(p, { kind: 'piece', panelId: panel.id, set: { flat: null } }))}
            >
              Back to the taped sizes
            </Button>
          )}
          {choice.slits.length > 0 && (
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => edit((p) => applyChange(p, { kind: 'piece', panelId: panel.id, set: { slits: [] } }))}
            >
              Leave out {choice.slits.length} relief cuts
            </Button>
          )}
        </div>
      )}
      <WaysTable panel={panel} film={film} scan={scan} onTaken={() => !coarse && setBefore({ map, key })} />
      {before && before.key !== key && beforeFeel && (
        <section aria-label="Before and after" className="mt-2">
          <div className="d-flex gap-2 align-items-baseline">
            <h3 className="mb-1">Before and after</h3>
            <Button variant="link" size="sm" onClick={() => setBefore(null)}>
              Close
            </Button>
          </div>
          <div className="d-flex gap-3 flex-wrap">
            <SurfacePicture
              title={`Before: ${fmt.text(fmt.percent(beforeFeel.worst))}`}
              places={before.map.seen}
              map={before.map}
              feel={beforeFeel}
              film={film}
              text={(v) => fmt.text(fmt.percent(v))}
              id={`b-${panel.id}`}
              px={300}
              says={`worst stretch ${fmt.text(fmt.percent(beforeFeel.worst))}`}
            />
            <SurfacePicture
              title={`Now: ${fmt.text(fmt.percent(feel.worst))}`}
              places={map.seen}
              map={map}
              feel={feel}
              film={film}
              text={(v) => fmt.text(fmt.percent(v))}
              id={`n-${panel.id}`}
              px={300}
              says={says}
            />
          </div>
        </section>
      )}
      {panel.recesses.length > 0 && <Schools panel={panel} film={film} scan={scan} />}
    </section>
  )
}
