'use client'

import { memo, type MouseEvent } from 'react'
import { isSameList, isSameRecord } from '@/core/kit/kept'
import { surroundingsOf } from '@/core/engines/skin/surroundings'
import type { Skin } from '@/core/engines/skin/skin'
import type { SkinMark, SkinMarks } from '@/web/charts/skin-marks'

const panelOf = (e: MouseEvent): string | undefined =>
  (e.target as Element).closest<SVGGElement>('[data-panel]')?.dataset.panel

/** The panels alone: untouched while the map is moved, and each drawn anew where it changed. */
export const Panels = memo(function Panels({
  drawing,
  selected,
  uid,
  onPick,
  onOpen,
}: {
  drawing: SkinMarks
  selected: readonly string[]
  uid: string
  onPick: (id: string, more: boolean, x: number, y: number) => void
  onOpen: ((id: string) => void) | undefined
}) {
  return (
    <g
      role="presentation"
      onClick={(e) => {
        const id = panelOf(e)
        if (id !== undefined) onPick(id, e.shiftKey || e.ctrlKey || e.metaKey, e.clientX, e.clientY)
      }}
      onDoubleClick={(e) => {
        const id = panelOf(e)
        if (id !== undefined) onOpen?.(id)
      }}
    >
      {drawing.marks.map((m) => (
        <PanelMark key={m.id} mark={m} uid={uid} on={selected.includes(m.id)} />
      ))}
    </g>
  )
})

interface MarkProps {
  mark: SkinMark
  uid: string
  on: boolean
}
const isSameMark = (a: MarkProps, b: MarkProps): boolean => {
  const [{ edges, ...one }, { edges: others, ...other }] = [a.mark, b.mark]
  return (
    a.uid === b.uid &&
    a.on === b.on &&
    isSameRecord(one, other) &&
    isSameList(edges.map(edgeText), others.map(edgeText))
  )
}
const edgeText = ({ id, d, stroke, dash }: SkinMark['edges'][number]): string => `${id} ${d} ${stroke} ${dash}`

const PanelMark = memo(function PanelMark({ mark: m, uid, on }: MarkProps) {
  return (
    <g
      id={`${uid}-${m.id}`}
      role="option"
      aria-selected={on}
      aria-label={`${m.name}, ${m.note}`}
      data-panel={m.id}
      className="skin-panel"
    >
      <path
        d={m.d}
        fill={m.fill}
        stroke={on ? 'var(--brass)' : 'var(--ink)'}
        strokeWidth={on ? 4 : 1.4}
        vectorEffect="non-scaling-stroke"
      />
      {m.edges.map((e) => (
        <path
          key={e.id}
          d={e.d}
          fill="none"
          stroke={e.stroke}
          strokeWidth={4}
          strokeDasharray={e.dash}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {!m.small && (
        <g
          transform={`translate(${m.x} ${m.y})${m.upright ? ' rotate(-90)' : ''}`}
          fontSize={m.fontSize}
          textAnchor="middle"
          aria-hidden
          className="skin-text"
          data-light={m.light}
        >
          <text y={m.fontSize * -0.05} className={m.fine ? 'fine' : undefined}>
            {m.name}
          </text>
          <text y={m.fontSize * 0.75} fontSize={m.fontSize * 0.62} className={`skin-note${m.fineNote ? ' fine' : ''}`}>
            {m.note}
          </text>
        </g>
      )}
      <title>{`${m.name}: ${m.note}`}</title>
    </g>
  )
}, isSameMark)

/** Glass and lamps, as what they are: they take no film, and nothing of them is picked. */
export const Surroundings = memo(function Surroundings({ skin }: { skin: Skin }) {
  return (
    <g aria-hidden className="skin-surroundings">
      {surroundingsOf(skin).map((s) => (
        <path
          key={s.id}
          data-kind={s.kind}
          d={`M${s.path.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`}
          fill={`url(#skin-${s.kind})`}
        />
      ))}
    </g>
  )
})

/** Fills that tell states apart without colour, and the liner's 100 mm grid. */
export const Patterns = memo(function Patterns() {
  return (
    <defs>
      <pattern id="skin-grid" width={GRID_MM} height={GRID_MM} patternUnits="userSpaceOnUse">
        <path d={`M${GRID_MM} 0H0V${GRID_MM}`} fill="none" stroke="var(--rule)" strokeWidth="2" opacity="0.7" />
      </pattern>
      <pattern id="skin-glass" width="120" height="120" patternUnits="userSpaceOnUse" patternTransform="rotate(-58)">
        <rect width="120" height="120" fill="var(--soft)" opacity="0.3" />
        <path d="M0 22H120M0 34H70" stroke="var(--plate)" strokeWidth="4" opacity="0.55" />
      </pattern>
      <pattern id="skin-lamp" width="22" height="22" patternUnits="userSpaceOnUse">
        <rect width="22" height="22" fill="var(--plate)" />
        <path d="M11 0V22" stroke="var(--faint)" strokeWidth="5" />
      </pattern>
      <pattern id="skin-assumed" width="60" height="60" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width="60" height="60" fill="var(--plate)" />
        <rect width="14" height="60" fill="#e4d3a4" />
      </pattern>
      <pattern id="skin-half" width="60" height="60" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width="60" height="60" fill="var(--band-2)" />
        <rect width="10" height="60" fill="#e4d3a4" />
      </pattern>
      <pattern id="skin-blocked" width="70" height="70" patternUnits="userSpaceOnUse">
        <rect width="70" height="70" fill="var(--plate)" />
        <path d="M0 0L70 70M70 0L0 70" stroke="var(--stop)" strokeWidth="7" />
      </pattern>
      <pattern id="skin-dots" width="50" height="50" patternUnits="userSpaceOnUse">
        <rect width="50" height="50" fill="var(--plate)" />
        <circle cx="25" cy="25" r="8" fill="var(--band-3)" />
      </pattern>
      <pattern id="skin-lines" width="50" height="50" patternUnits="userSpaceOnUse">
        <rect width="50" height="50" fill="var(--plate)" />
        <path d="M0 25H50" stroke="var(--band-3)" strokeWidth="8" />
      </pattern>
    </defs>
  )
})

export const GRID_MM = 100
