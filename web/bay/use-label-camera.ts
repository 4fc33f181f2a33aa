import { useEffect, useRef, useState, type RefObject } from 'react'

export type CameraState = 'starting' | 'on' | 'refused' | 'none'
/** A picture is looked at this often, no wider than so many dots. */
const LOOK_MS = 250
const WIDEST = 640

/**
 * The back camera, looked at for a QR code a few times a second; off as soon as nobody looks. `onText` hears each code
 * once, until another one is seen.
 */
export function useLabelCamera(onText: (text: string) => void): {
  video: RefObject<HTMLVideoElement | null>
  state: CameraState
} {
  const video = useRef<HTMLVideoElement>(null)
  const [state, setState] = useState<CameraState>(() => (cameras() ? 'starting' : 'none'))
  const heard = useRef(onText)
  useEffect(() => {
    heard.current = onText
  })
  useEffect(() => {
    const devices = cameras()
    if (!devices) return
    let isOpen = true
    let stream: MediaStream | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    let last = ''
    const look = async (decode: Decoder) => {
      const text = video.current ? decode(video.current) : null
      if (text && text !== last) heard.current((last = text))
      if (isOpen) timer = setTimeout(() => void look(decode), LOOK_MS)
    }
    const begin = async () => {
      stream = await devices.getUserMedia({ video: { facingMode: 'environment' } })
      const decode = await decoder()
      if (!isOpen || !video.current) return stop(stream)
      video.current.srcObject = stream
      await video.current.play()
      setState('on')
      await look(decode)
    }
    begin().catch((fault: unknown) => {
      stop(stream)
      if (isOpen) setState(fault instanceof DOMException && fault.name === 'NotFoundError' ? 'none' : 'refused')
    })
    return () => {
      isOpen = false
      clearTimeout(timer)
      stop(stream)
    }
  }, [])
  return { video, state }
}

/** None on a page that is not served over a secure connection. */
const cameras = (): MediaDevices | undefined =>
  typeof navigator !== 'undefined' && 'mediaDevices' in navigator ? navigator.mediaDevices : undefined
const stop = (stream: MediaStream | null): void => stream?.getTracks().forEach((track) => track.stop())

type Decoder = (video: HTMLVideoElement) => string | null

/** Loaded with the first label: nobody else pays for it. */
async function decoder(): Promise<Decoder> {
  const { default: read } = await import('jsqr')
  const canvas = document.createElement('canvas')
  const context = canvas.getContext('2d', { willReadFrequently: true })
  return (video) => {
    if (!context || video.videoWidth === 0) return null
    const scale = Math.min(1, WIDEST / video.videoWidth)
    canvas.width = Math.round(video.videoWidth * scale)
    canvas.height = Math.round(video.videoHeight * scale)
    context.drawImage(video, 0, 0, canvas.width, canvas.height)
    const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height)
    return read(data, width, height)?.data ?? null
  }
}
