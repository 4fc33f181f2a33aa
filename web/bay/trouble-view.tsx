'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { defectsOf, type Defect } from '@/core/engines/heat/defects'
import { cardsOf, currentCard } from '@/core/engines/run-sheet/cards'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { DEFECT_KINDS } from '@/core/model/log/kinds'
import { troubleOf, type DefectKind } from '@/core/model/log/trouble-data'
import { useJob } from '@/web/job/job-state'
import { FilePicker } from '@/web/kit/file-picker'
import { word } from '@/web/words/names'
import { FIRST, NOT } from '@/web/words/trouble'
import { useHands } from './use-hands'

/** Trouble: what is seen, the first answer, logged with a photo; what is open until it is mended, redone or accepted. */
export function TroubleView() {
  const { plan, ledger, reckoning, log } = useJob('plan', 'ledger', 'reckoning', 'log')
  const panels = plan.panels.filter((p) => p.wrap)
  const current = currentCard(cardsOf(plannedSteps(reckoning.steps)), useHands())?.panelId
  const [panelId, setPanel] = useState(current ?? panels[0]?.id ?? '')
  const [kind, setKind] = useState<DefectKind | null>(null)
  const [note, setNote] = useState('')
  const defects = defectsOf(ledger, reckoning.points)
  const notes = ledger.flatMap((r) => (r.payload.kind === 'note' ? [{ ...r, text: r.payload.text }] : []))
  if (kind) return <Answer kind={kind} panelId={panelId} onBack={() => setKind(null)} />
  const open = defects.filter((d) => !d.closed)
  return (
    <div className="d-flex flex-column gap-2 overflow-y-auto">
      <Form.Select aria-label="Panel" value={panelId} onChange={(e) => setPanel(e.target.value)}>
        {panels.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Form.Select>
      <div className="bay-grid kinds" role="group" aria-label="What is seen">
        {DEFECT_KINDS.map((d) => (
          <Button variant="plain" key={d} disabled={panelId === ''} onClick={() => setKind(d)}>
            {word('defect', d)}
          </Button>
        ))}
      </div>
      {open.map((d) => (
        <OpenDefect key={d.id} defect={d} />
      ))}
      <div className="d-flex gap-2">
        <Form.Control
          aria-label="Note"
          placeholder="a note"
          maxLength={2000}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button
          variant="plain"
          className="text-nowrap"
          disabled={note.trim() === ''}
          onClick={() => {
            log({ kind: 'note', text: note.trim() })
            setNote('')
          }}
        >
          Note only
        </Button>
      </div>
      <Told defects={defects.filter((d) => d.closed)} notes={notes} />
    </div>
  )
}

function Told({
  defects,
  notes,
}: {
  defects: readonly Defect[]
  notes: readonly { id: string; text: string; by: string; at: string }[]
}) {
  const { fmt, plan } = useJob('fmt', 'plan')
  const when = (at: string) => fmt.moment(at, { hour: '2-digit', minute: '2-digit' })
  const name = (id: string) => plan.panels.find((p) => p.id === id)?.name ?? id
  if (defects.length + notes.length === 0) return null
  return (
    <ul className="m-0 ps-3" aria-label="Told before">
      {defects.map((d) => (
        <li key={d.id}>
          {name(d.panelId)}: {word('defect', d.defect)}, {word('outcome', d.closed?.outcome ?? 'mended')}:{' '}
          {d.closed?.how} <span className="label">{d.closed && `${d.closed.by}, ${when(d.closed.at)}`}</span>
        </li>
      ))}
      {notes.map((n) => (
        <li key={n.id}>
          {n.text} <span className="label">{`${n.by}, ${when(n.at)}`}</span>
        </li>
      ))}
    </ul>
  )
}

/** The first answer to one kind of trouble in this film, and the entry with its photos. */
function Answer({ kind, panelId, onBack }: { kind: DefectKind; panelId: string; onBack: () => void }) {
  const { plan, reckoning, log, photos } = useJob('plan', 'reckoning', 'log', 'photos')
  const [note, setNote] = useState('')
  const [photoIds, setPhotos] = useState<readonly string[]>([])
  const panel = plan.panels.find((p) => p.id === panelId)
  const film = reckoning.parts.films.get(
    reckoning.laid.find((p) => (p.covers ?? [p.panelId]).includes(panelId))?.filmId ?? '',
  )
  const { first, not, lead } = troubleOf(kind, film)
  const dents = plan.walkaround.damage.filter((d) => d.panelId === panelId)
  return (
    <section className="plate d-flex flex-column gap-2" aria-label="First answer">
      <h2>
        {panel?.name}: {word('defect', kind)}
      </h2>
      <p className="fs-4 mb-1">{FIRST[first]}</p>
      {not && (
        <p className="fs-5 mb-1 verdict" data-verdict="too_hot">
          {NOT[not]}
        </p>
      )}
      {lead && <p className="fs-5 mb-1">Fetch the lead.</p>}
      {dents.length > 0 && (
        <p className="fs-5 mb-1">
          Known before: {dents.map((d) => word('damage', d.kind)).join(', ')}. A dent is no bubble: do not prick it.
        </p>
      )}
      <Form.Control
        aria-label="Where, what was done"
        placeholder="where, what was done"
        maxLength={2000}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
      <div className="step-buttons">
        <FilePicker
          label="Photo of it"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          variant="plain"
          onFile={(file) => {
            if (file) void photos.take(file).then((id) => id && setPhotos((ids) => [...ids, id].slice(0, 6)))
          }}
        >
          Photo{photoIds.length > 0 ? ` (${photoIds.length})` : ''}
        </FilePicker>
        <Button
          variant="go"
          className="btn-go"
          onClick={() => {
            log({
              kind: 'defect',
              panelId,
              defect: kind,
              note: note.trim(),
              ...(photoIds.length > 0 ? { photoIds: [...photoIds] } : {}),
            })
            onBack()
          }}
        >
          Log it
        </Button>
      </div>
      <Button variant="plain" onClick={onBack}>
        Back
      </Button>
    </section>
  )
}

/** One open defect: mended, its piece redone, or accepted. */
function OpenDefect({ defect: d }: { defect: Defect }) {
  const { plan, log, reckoning, member } = useJob('plan', 'log', 'reckoning', 'member')
  const [how, setHow] = useState('')
  const panel = plan.panels.find((p) => p.id === d.panelId)?.name ?? d.panelId
  const close = (outcome: 'mended' | 'redone' | 'accepted', said: string) => {
    const pieces = reckoning.laid.filter((p) => (p.covers ?? [p.panelId]).includes(d.panelId)).map((p) => p.id)
    log({
      kind: 'defect_closed',
      defectId: d.id,
      how: how.trim() || said,
      outcome,
      ...(outcome === 'redone' && pieces.length > 0 ? { pieceIds: pieces.slice(0, 40) } : {}),
    })
    if (outcome !== 'redone') return
    // What was done on the panel is to be done once more.
    for (const s of reckoning.steps)
      if (s.panelId === d.panelId && s.state === 'done') log({ kind: 'step_done_taken_back', stepId: s.id })
  }
  return (
    <section
      className="plate d-flex flex-column gap-2 edge-stop"
      aria-label={`Open: ${panel}, ${word('defect', d.defect)}`}
    >
      <p className="mb-0">
        <b>
          {panel}: {word('defect', d.defect)}
        </b>
        {d.note && `, ${d.note}`}
      </p>
      {d.photoIds.map((id) => (
        // eslint-disable-next-line @next/next/no-img-element -- kept by this server, at its final size
        <img key={id} src={`/api/photos/${id}`} alt="photo" width={56} height={44} loading="lazy" />
      ))}
      <Form.Control
        aria-label={`What was done about: ${panel}, ${word('defect', d.defect)}`}
        placeholder="what was done"
        maxLength={2000}
        value={how}
        onChange={(e) => setHow(e.target.value)}
      />
      <div className="bay-grid">
        <Button variant="plain" onClick={() => close('mended', 'mended')}>
          Mended
        </Button>
        <Button variant="plain" onClick={() => close('redone', 'the piece is redone')}>
          Redo the piece
        </Button>
        <Button variant="plain" onClick={() => close('accepted', `accepted by ${member.name}`)}>
          Accepted
        </Button>
      </div>
    </section>
  )
}
