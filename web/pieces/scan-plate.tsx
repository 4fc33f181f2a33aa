'use client'

import { Cutting, Raw } from '@/web/pieces/scan-cutting'

import { FilePicker } from '@/web/kit/file-picker'
import Button from 'react-bootstrap/Button'
import { useEffect, useRef, useState } from 'react'
import type { TriMesh } from '@/core/solve/mesh'
import { onPanel, type ScanSurface } from '@/core/solve/mesh/scan'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import type { ScanAsk, ScanNews } from '@/web/workers/scan.worker'
import { faultText } from '@/web/words/faults'
import type { KeptScan } from './use-scans'
/** A panel's scan is laid on with so many triangles. */
const KEPT = 4000
const STEPS = { read: 'reading', clean: 'joining and cleaning', thin: 'thinning' } as const
/**
 * A scan of the panel in place of the surface made from the tape: read, cleaned, cut out, checked against the tape,
 * kept with the job.
 */
export function ScanPlate({
  panel,
  kept,
  onKept,
}: {
  panel: Panel
  kept: KeptScan | null
  onKept: (scan: ScanSurface | null, name: string) => Promise<string>
}) {
  const { mayTape } = useJob('mayTape')
  const [raw, setRaw] = useState<Raw | null>(null)
  const [said, setSaid] = useState('')
  const [share, setShare] = useState<number | null>(null)
  const worker = useRef<Worker | null>(null)
  useEffect(() => () => worker.current?.terminate(), [])
  const stop = () => {
    worker.current?.terminate()
    setShare(null)
  }
  const ask = (message: ScanAsk, done: (news: Extract<ScanNews, { kind: 'mesh' }>) => void) => {
    worker.current?.terminate()
    const own = new Worker(new URL('../workers/scan.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setSaid('')
    setShare(0)
    own.onmessage = ({ data }: MessageEvent<ScanNews>) => {
      if (data.kind === 'step') {
        setShare(data.share)
        setSaid(`${STEPS[data.step]} …`)
        return
      }
      stop()
      if (data.kind === 'fault') setSaid(faultText(data.fault))
      else done(data)
    }
    own.onerror = () => {
      stop()
      setSaid('The scan could not be read in this browser.')
    }
    own.postMessage(message)
  }
  const open = async (file: File) => {
    const bytes = new Uint8Array(await file.arrayBuffer())
    ask({ kind: 'read', bytes, name: file.name }, ({ mesh, was, welded, dropped, turned }) => {
      const mended = [
        welded > 0 ? `${welded} points joined` : '',
        dropped > 0 ? `${dropped} parts of no size left out` : '',
        turned > 0 ? `${turned} turned round` : '',
      ].filter((x) => x !== '')
      setSaid('')
      setRaw({
        name: file.name,
        mesh,
        told: `read${mesh.triangles.length / 3 < was ? ', made coarser' : ''}${mended.length > 0 ? `; ${mended.join(', ')}` : ''}.`,
      })
    })
  }
  const keep = (mesh: TriMesh, name: string) =>
    ask({ kind: 'thin', mesh, triangles: KEPT }, ({ mesh: thin }) => {
      void onKept(onPanel(thin), name).then((fault) => {
        setSaid(fault)
        if (fault === '') setRaw(null)
      })
    })
  return (
    <section aria-label="Scan of the panel" className="mt-3">
      <div className="d-flex gap-2 flex-wrap align-items-center">
        <h3 className="mb-0">Surface</h3>
        <span className="label">
          {kept ? `from the scan ${kept.name}, put in by ${kept.by}` : 'made from the tape'}
        </span>
        {mayTape && (
          <FilePicker
            label="Scan file (OBJ, STL or PLY)"
            accept=".obj,.stl,.ply"
            onFile={(file) => void open(file)}
            size="sm"
          >
            {kept ? 'Another scan …' : 'Use a scan …'}
          </FilePicker>
        )}
        {kept && mayTape && (
          <Button variant="outline-primary" size="sm" onClick={() => void onKept(null, '').then(setSaid)}>
            Back to the tape
          </Button>
        )}
        {share !== null && (
          <>
            <progress value={share} max={1} aria-label="Reading the scan" style={{ width: 90 }} />
            <Button variant="link" size="sm" onClick={stop}>
              Stop
            </Button>
          </>
        )}
        <span role="status" className="label">
          {said}
        </span>
      </div>
      {raw && <Cutting key={raw.name} raw={raw} panel={panel} onTake={keep} onDrop={() => setRaw(null)} />}
    </section>
  )
}
