'use client'

import type { ReactNode } from 'react'

interface FilePickerProps {
  /** What a screen reader says of the field. */
  label: string
  accept: string
  onFile: (file: File) => void
  children: ReactNode
  variant?: 'outline-primary' | 'outline-secondary' | 'plain'
  /** Straight from the camera of a phone. */
  capture?: 'environment'
  size?: 'sm'
}

/** A button that asks for one file; the same file may be chosen again. */
export function FilePicker({
  label,
  accept,
  onFile,
  children,
  variant = 'outline-primary',
  capture,
  size,
}: FilePickerProps) {
  return (
    <label className={`btn btn-${variant} mb-0${size ? ` btn-${size}` : ''}`}>
      {children}
      <input
        type="file"
        accept={accept}
        {...(capture ? { capture } : {})}
        className="visually-hidden"
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) onFile(file)
          e.target.value = ''
        }}
      />
    </label>
  )
}
