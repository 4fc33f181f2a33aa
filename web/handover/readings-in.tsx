'use client'

import { useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { readReadings } from '@/core/stages/bay/reading-import'
import { useJob } from '@/web/job/job-state'
import { readCsv } from '@/web/kit/csv'
import { FilePicker } from '@/web/kit/file-picker'
import { faultText } from '@/web/words/faults'
import { tableFaults } from '@/web/words/table'

/** Faults of a file that are told one by one. */
const TOLD = 12

/** Readings from a file, as a thermometer that keeps them gives them out: each row once, however often it is brought. */
export function ReadingsIn() {
  const { jobId, reckoning, ledger, log } = useJob('jobId', 'reckoning', 'ledger', 'log')
  const [said, setSaid] = useState<string[]>([])
  const bring = async (file: File) => {
    if (file.size > MAX_FILE_BYTES) return setSaid([faultText({ code: 'too_large', facts: { limit: MAX_FILE_BYTES } })])
    const rows = readCsv(await file.text())
    const read = rows.ok ? readReadings(rows.value, { jobId, points: reckoning.points, ledger }) : rows
    if (!read.ok) return setSaid(['Nothing was taken in.', ...tableFaults(read.error)])
    const { readings, known, faults } = read.value
    for (const { id, at, payload } of readings) log(payload, { id, at })
    const parts = [
      `${readings.length} ${readings.length === 1 ? 'reading' : 'readings'} taken in`,
      ...(known > 0 ? [`${known} there already`] : []),
      ...(faults.length > 0 ? [`${faults.length} left out`] : []),
    ]
    const more = faults.length > TOLD ? [`and ${faults.length - TOLD} more`] : []
    setSaid([`${parts.join(', ')}.`, ...tableFaults(faults.slice(0, TOLD)), ...more])
  }
  return (
    <>
      <FilePicker
        label="Readings from a CSV file"
        accept=".csv,text/csv"
        variant="outline-secondary"
        onFile={(file) => void bring(file)}
      >
        Bring in readings
      </FilePicker>
      {said.length > 0 && (
        <Alert variant="info" className="w-100 mt-2 mb-0 py-2" dismissible onClose={() => setSaid([])}>
          {said.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Alert>
      )}
    </>
  )
}
