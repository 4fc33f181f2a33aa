'use client'

import type { Fault } from '@/core/kit/result'
import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { freeId } from '@/core/kit/ids'
import { fromSkin } from '@/core/engines/skin/skin'
import { MAX_PANEL_MM } from '@/core/model/vehicle/kinds'
import { useJob } from '@/web/job/job-state'
import { FeatureTable, type Column } from '@/web/kit/feature-table'
import { WordSelect } from '@/web/kit/fields'
import { SkinPlate } from '@/web/skin/skin-panel'
import { faultText } from '@/web/words/faults'
import { DamagePins } from './damage-pins'

type Damage = Plan['walkaround']['damage'][number]
const MAX_PHOTO_BYTES = 12_000_000

/** What was there before the work: pinned on the vehicle's own map, with size, words and photos. */
export function DamageRecord() {
  const { plan, edit, fmt, mayWalkaround } = useJob('plan', 'edit', 'fmt', 'mayWalkaround')
  const [kind, setKind] = useState<Damage['kind']>('chip')
  const [selected, setSelected] = useState<string[]>([])
  const list = plan.walkaround.damage
  const set = (change: (rows: readonly Damage[]) => Damage[]) =>
    edit((p) => ({ ...p, walkaround: { ...p.walkaround, damage: change(p.walkaround.damage) } }))
  const made = (panelId: string | null, at: { xMm: number; yMm: number } | null): Damage => ({
    id: freeId(
      'd1',
      list.map((d) => d.id),
    ),
    panelId,
    kind,
    note: '',
    sizeMm: null,
    xMm: at?.xMm ?? null,
    yMm: at?.yMm ?? null,
    photoIds: [],
    waived: null,
  })
  const panels = plan.panels.map((p) => [p.id, p.name] as const)
  const columns: Column<Damage>[] = [
    { key: 'kind', label: 'Kind', kind: 'word', list: 'damage', width: 120 },
    { key: 'panelId', label: 'Panel', kind: 'choice', options: panels, none: 'no panel named', width: 120 },
    { key: 'sizeMm', label: 'Size', kind: 'length', max: MAX_PANEL_MM, optional: true },
    { key: 'note', label: 'Note', kind: 'text', max: 2000, width: 180 },
  ]
  return (
    <section className="plate mb-3" aria-label="Damage before the work">
      <div className="d-flex gap-2 align-items-center flex-wrap mb-2">
        <h2 className="mb-0">Damage before the work</h2>
        <span className="label">
          press the map where it is; arrows and Enter do the same. Drag a pin to put it right
        </span>
        <span className="ms-auto d-flex gap-2 align-items-center">
          <label className="label" htmlFor="pin-kind">
            Pin
          </label>
          <WordSelect
            list="damage"
            id="pin-kind"
            className="form-select form-select-sm"
            value={kind}
            onCode={setKind}
          />
        </span>
      </div>
      {plan.panels.length > 0 && (
        <SkinPlate
          layers={['state']}
          selected={selected}
          onSelect={setSelected}
          height={300}
          {...(mayWalkaround
            ? {
                onOpen: (id: string) => {
                  const p = plan.panels.find((x) => x.id === id)
                  if (p)
                    set((rows) => [
                      ...rows,
                      made(id, { xMm: Math.round(p.widthMm / 2), yMm: Math.round(p.heightMm / 2) }),
                    ])
                },
                onPlace: (at: Parameters<typeof fromSkin>[0], point: Parameters<typeof fromSkin>[2]) => {
                  const p = plan.panels.find((x) => x.id === at.id)
                  setSelected([at.id])
                  if (p) set((rows) => [...rows, made(at.id, fromSkin(at, p, point))])
                },
              }
            : {})}
          over={(skin) => (
            <DamagePins
              skin={skin}
              plan={plan}
              onMove={
                mayWalkaround
                  ? (id, at) => set((rows) => rows.map((r) => (r.id === id ? { ...r, ...at } : r)))
                  : undefined
              }
            />
          )}
        />
      )}
      {list.length === 0 && <p className="label">None noted.</p>}
      <FeatureTable
        rows={list}
        columns={columns}
        fmt={fmt}
        onRows={set}
        naming={(_, i) => `Damage ${i + 1}`}
        make={() => made(selected.at(-1) ?? null, null)}
        add="Add damage"
        extra={(d) => (
          <DamageMore
            damage={d}
            number={list.indexOf(d) + 1}
            onChange={(part) => set((rows) => rows.map((r) => (r.id === d.id ? { ...r, ...part } : r)))}
          />
        )}
      />
    </section>
  )
}

/** Photos of one find, and the waiver of one that would stop the panel. */
function DamageMore({
  damage: d,
  number,
  onChange,
}: {
  damage: Damage
  number: number
  onChange: (part: Partial<Damage>) => void
}) {
  const { jobId, member, mayWalkaround } = useJob('jobId', 'member', 'mayWalkaround')
  const [said, setSaid] = useState('')
  const [reason, setReason] = useState<string | null>(null)
  const send = async (file: File | undefined) => {
    if (!file) return
    if (file.size > MAX_PHOTO_BYTES)
      return setSaid(faultText({ code: 'photo_too_large', facts: { limit: MAX_PHOTO_BYTES } }))
    setSaid('Sending')
    try {
      const response = await fetch(`/api/jobs/${jobId}/photos`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: file,
      })
      const out = (await response.json()) as { ok: true; value: { id: string } } | { ok: false; error: Fault }
      if (!out.ok) return setSaid(faultText(out.error))
      onChange({ photoIds: [...d.photoIds, out.value.id] })
      setSaid('')
    } catch {
      setSaid(faultText({ code: 'no_answer' }))
    }
  }
  const blocks = d.kind === 'rust' || d.kind === 'peeling_clear'
  return (
    <div className="d-flex gap-1 align-items-center flex-wrap py-1">
      {d.photoIds.map((id, i) => (
        <a key={id} href={`/api/photos/${id}`} target="_blank" rel="noreferrer">
          {/* eslint-disable-next-line @next/next/no-img-element -- kept by this server, at its final size */}
          <img
            src={`/api/photos/${id}`}
            alt={`Damage ${number}, photo ${i + 1}`}
            width={44}
            height={34}
            style={{ objectFit: 'cover', border: '1px solid var(--ink)' }}
            loading="lazy"
          />
        </a>
      ))}
      {mayWalkaround && d.photoIds.length < 12 && (
        <FilePicker
          label={`Photo of damage ${number}`}
          accept="image/jpeg,image/png,image/webp"
          onFile={(file) => void send(file)}
          size="sm"
          variant="outline-secondary"
          capture="environment"
        >
          Photo
        </FilePicker>
      )}
      {blocks && !d.waived && reason === null && (
        <Button variant="outline-danger" size="sm" onClick={() => setReason('')}>
          Waive
        </Button>
      )}
      {blocks && !d.waived && reason !== null && (
        <>
          <Form.Control
            size="sm"
            style={{ width: 190 }}
            aria-label={`Damage ${number}, reason to waive`}
            placeholder="Reason"
            maxLength={500}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Button
            variant="danger"
            size="sm"
            disabled={reason.trim().length < 3}
            onClick={() => {
              onChange({ waived: { reason: reason.trim(), by: member.name, at: new Date().toISOString() } })
              setReason(null)
            }}
          >
            Waive it
          </Button>
        </>
      )}
      {d.waived && (
        <span className="label">
          waived by {d.waived.by}: {d.waived.reason}{' '}
          <Button variant="link" size="sm" className="p-0" onClick={() => onChange({ waived: null })}>
            Take back
          </Button>
        </span>
      )}
      {said !== '' && (
        <span className="label" role="status">
          {said}
        </span>
      )}
    </div>
  )
}
