'use client'

import { select, zoom, zoomIdentity, type D3ZoomEvent, type ZoomBehavior } from 'd3'
import { useEffect, useId, useMemo, useRef, type KeyboardEvent, type ReactNode } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import type { Point } from '@/core/kit/plane'
import { type Skin } from '@/core/engines/skin/skin'
import { type SkinPanel } from '@/core/engines/skin/skin-panel'
import { panelAcross } from '@/core/engines/skin/walk'
import { skinMarks, type Layer } from '@/web/charts/skin-marks'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { Panels, Patterns, Surroundings } from '@/web/skin/skin-panels'
import { SkinFoot } from './skin-foot'
import './skin.scss'

const MARGIN_MM = 180

export interface SkinMapProps {
  plan: Plan
  layer: Layer
  selected: readonly string[]
  onSelect: (ids: string[]) => void
  /** Opened by Enter or a double click. */
  onOpen?: (id: string) => void
  /** A place on a panel was pressed, in map millimetres. */
  onPlace?: (panel: SkinPanel, point: Point) => void
  over?: (skin: Skin) => ReactNode
  height?: number | string
  label?: string
}

/**
 * The vehicle as an unrolled map of its own panels, true to scale over the liner's grid. Arrows walk from panel to
 * neighbour.
 */
export function SkinMap({ plan, layer, selected, onSelect, onOpen, onPlace, over, height, label }: SkinMapProps) {
  const { fmt, catalogue, reckoning } = useJob('fmt', 'catalogue', 'reckoning')
  const stretch = layer === 'stretch' ? reckoning.stretch : null
  const svg = useRef<SVGSVGElement>(null)
  const world = useRef<SVGGElement>(null)
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null)
  const uid = useId().replace(/\W/g, '')
  const { panels, film, vehicle, walkaround } = plan
  const drawing = useMemo(
    () =>
      skinMarks(
        { ...plan, panels, film, vehicle, walkaround },
        layer,
        {
          area: (mm2) => fmt.text(fmt.area(mm2)),
          size: (w, h) => `${fmt.length(w).text} × ${fmt.text(fmt.length(h))}`,
          material: (code) => word('material', code, fmt.units.locale),
          stretch: (id) =>
            stretch?.has(id)
              ? { value: stretch.get(id) as number, text: fmt.text(fmt.percent(stretch.get(id) as number)) }
              : null,
        },
        catalogue.now,
      ),
    // The map hangs on the measured vehicle and its films only; a change of the run sheet does not draw it anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [panels, film, vehicle, walkaround, layer, fmt, catalogue.now, stretch],
  )
  const { box } = drawing.skin
  const view = {
    x: box.left - MARGIN_MM,
    y: box.top - MARGIN_MM,
    w: box.right - box.left + 2 * MARGIN_MM,
    h: box.bottom - box.top + 2 * MARGIN_MM,
  }
  const current = selected.at(-1) ?? null

  useEffect(() => {
    if (!svg.current) return
    const z = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.8, 30])
      // The wheel alone scrolls the page; with Ctrl, or a pinch, it zooms.
      .filter((event: MouseEvent) => (event.type === 'wheel' ? event.ctrlKey : event.button === 0))
      // Lettering is drawn plainly while the map moves: outlined letters are what costs most to paint.
      .on('start', () => world.current && (world.current.dataset.moving = 'true'))
      .on('end', () => world.current && (world.current.dataset.moving = 'false'))
      .on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
        world.current?.setAttribute('transform', event.transform.toString())
        // Close up there is room for the small lettering.
        const near = event.transform.k > 1.6 ? 'true' : 'false'
        if (world.current && world.current.dataset.near !== near) world.current.dataset.near = near
      })
    behaviour.current = z
    const node = select(svg.current)
    node.call(z).on('dblclick.zoom', null)
    return () => void node.on('.zoom', null)
  }, [])

  const scaleBy = (k: number) => {
    if (svg.current && behaviour.current) select(svg.current).call(behaviour.current.scaleBy, k)
  }
  const fit = () => {
    if (svg.current && behaviour.current) select(svg.current).call(behaviour.current.transform, zoomIdentity)
  }
  const choose = (id: string, more: boolean) =>
    onSelect(more ? (selected.includes(id) ? selected.filter((x) => x !== id) : [...selected, id]) : [id])
  const keys = (event: KeyboardEvent) => {
    const toward = ({ ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'left', ArrowRight: 'right' } as const)[event.key]
    if (toward) {
      const next = current ? panelAcross(drawing.skin, current, toward) : (drawing.marks[0]?.id ?? null)
      if (next) onSelect(event.shiftKey ? [...selected.filter((x) => x !== next), next] : [next])
    } else if (event.key === 'Enter' && current) onOpen?.(current)
    else if (event.key === '+' || event.key === '=') scaleBy(1.3)
    else if (event.key === '-') scaleBy(1 / 1.3)
    else if (event.key === '0') fit()
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) onSelect(drawing.marks.map((m) => m.id))
    else if (event.key === 'Escape') onSelect([])
    else return
    event.preventDefault()
  }
  const placed = (id: string, clientX: number, clientY: number) => {
    const matrix = world.current?.getScreenCTM()
    const panel = drawing.skin.panels.find((p) => p.id === id)
    if (!matrix || !panel || !onPlace) return
    const p = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse())
    onPlace(panel, { x: p.x, y: p.y })
  }
  if (drawing.marks.length === 0)
    return <p className="plate mb-0">No panel is measured yet: there is nothing to draw.</p>
  return (
    <div className="skin">
      <svg
        ref={svg}
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        style={
          height === undefined
            ? {
                width: '100%',
                aspectRatio: `${view.w} / ${view.h}`,
                maxHeight: 'min(72vh, 860px)',
                touchAction: 'pan-y',
              }
            : { width: '100%', height, touchAction: 'pan-y' }
        }
        role="listbox"
        aria-multiselectable
        aria-label={label ?? `${plan.vehicle.name}, ${plan.panels.length} panels; arrows walk from panel to panel`}
        aria-activedescendant={current ? `${uid}-${current}` : undefined}
        tabIndex={0}
        onKeyDown={keys}
      >
        <Patterns />
        <g ref={world} role="presentation" data-near="false">
          <rect
            x={view.x - view.w}
            y={view.y - view.h}
            width={view.w * 3}
            height={view.h * 3}
            fill="url(#skin-grid)"
            role="presentation"
          />
          <Surroundings skin={drawing.skin} />
          <Panels
            drawing={drawing}
            selected={selected}
            uid={uid}
            onPick={(id, more, x, y) => (onPlace ? placed(id, x, y) : choose(id, more))}
            onOpen={onOpen}
          />
          {over?.(drawing.skin)}
        </g>
      </svg>
      <SkinFoot drawing={drawing} layer={layer} scaleBy={scaleBy} fit={fit} />
    </div>
  )
}
