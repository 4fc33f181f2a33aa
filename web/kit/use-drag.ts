import { drag, select, type D3DragEvent } from 'd3'
import { useEffect, useRef } from 'react'

/** How far something was dragged from where it was taken up, in units of the drawing that it stands in. */
export interface Dragged {
  dx: number
  dy: number
}
interface DragHandlers {
  /** Whether it may be taken up at all. */
  enabled: boolean
  onStart?: () => void
  onMove: (by: Dragged) => void
  /** Let go. `by` is null where it was not moved far enough to be a drag. */
  onEnd: (by: Dragged | null) => void
}
/** A shaking hand that presses something does not drag it. */
const LEAST_DRAG_PX = 4

/**
 * Lets an element of a drawing be dragged by mouse, pen or finger. Give the ref to the element; its parent is what
 * distances are measured in.
 */
export function useDrag<E extends SVGElement>(handlers: DragHandlers) {
  const element = useRef<E>(null)
  const latest = useRef(handlers)
  useEffect(() => {
    latest.current = handlers
  })
  useEffect(() => {
    if (!element.current) return
    let from = { x: 0, y: 0 }
    let pressed = { x: 0, y: 0 }
    let far = false
    const by = (event: { x: number; y: number }): Dragged => ({ dx: event.x - from.x, dy: event.y - from.y })
    const place = (event: MouseEvent | TouchEvent) => {
      const at = 'touches' in event ? (event.touches[0] ?? event.changedTouches[0]) : event
      return { x: at?.clientX ?? 0, y: at?.clientY ?? 0 }
    }
    type Drag = D3DragEvent<E, unknown, unknown> & { sourceEvent: MouseEvent | TouchEvent }
    const behaviour = drag<E, unknown>()
      .clickDistance(LEAST_DRAG_PX)
      .filter((event: MouseEvent) => latest.current.enabled && !event.ctrlKey && !event.button)
      .on('start', (event: Drag) => {
        from = { x: event.x, y: event.y }
        pressed = place(event.sourceEvent)
        far = false
        latest.current.onStart?.()
      })
      .on('drag', (event: Drag) => {
        const now = place(event.sourceEvent)
        far ||= Math.hypot(now.x - pressed.x, now.y - pressed.y) > LEAST_DRAG_PX
        if (far) latest.current.onMove(by(event))
      })
      .on('end', (event: Drag) => latest.current.onEnd(far ? by(event) : null))
    const node = select(element.current)
    node.call(behaviour)
    return () => void node.on('.drag', null)
  }, [])
  return element
}
