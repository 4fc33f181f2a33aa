'use client'

import { Scene, build, reachOf, fill, colour, look, byKey, middle } from '@/web/pieces/surface-scene'

import { useEffect, useRef, useState } from 'react'
import * as THREE from 'three'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
const HEIGHT = 330
/**
 * The panel in space: turned by dragging or the arrow keys, moved with Shift, nearer and farther by the wheel or +
 * and −.
 */
export function Surface3D({
  map,
  band,
  at,
  onAt,
  grid,
  says,
  onDead,
}: {
  map: SurfaceMap
  band: Uint8Array
  at: number | null
  onAt: (t: number | null) => void
  grid: boolean
  says: string
  onDead: () => void
}) {
  const holder = useRef<HTMLDivElement>(null)
  const own = useRef<Scene | null>(null)
  const [ready, setReady] = useState(false)
  useEffect(() => {
    const host = holder.current
    if (!host) return
    const made = build(host)
    if (!made) return onDead()
    own.current = made
    setReady(true)
    const size = () => {
      const width = host.clientWidth
      made.renderer.setSize(width, HEIGHT, false)
      made.camera.aspect = width / HEIGHT
      made.camera.updateProjectionMatrix()
      made.draw()
    }
    const watch = new ResizeObserver(size)
    watch.observe(host)
    size()
    return () => {
      watch.disconnect()
      made.controls.dispose()
      made.body.geometry.dispose()
      made.renderer.dispose()
      made.renderer.domElement.remove()
      own.current = null
    }
    // The scene is built once; what it shows is put in below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  const shape = useRef<Float64Array | null>(null)
  useEffect(() => {
    const s = own.current
    if (!s || !ready) return
    // Another panel, not a finer map of the same one, is looked at from the front again.
    const afresh = shape.current === null || Math.abs(reachOf(map.positions) / reachOf(shape.current) - 1) > 0.05
    shape.current = map.positions
    fill(s, map)
    if (afresh) look(s)
    s.draw()
  }, [map, ready])
  useEffect(() => {
    const s = own.current
    if (!s || !ready) return
    colour(s.body, band)
    s.draw()
  }, [band, map, ready])
  useEffect(() => {
    const s = own.current
    if (!s || !ready) return
    s.lines.visible = grid
    s.draw()
  }, [grid, map, ready])
  useEffect(() => {
    const s = own.current
    if (!s || !ready) return
    s.marker.visible = at !== null && at < map.stretch.length
    if (at !== null && s.marker.visible) s.marker.position.set(...middle(map, at))
    s.draw()
  }, [at, map, ready])
  const point = (e: React.PointerEvent) => {
    const s = own.current
    if (!s || e.buttons !== 0) return
    const box = s.renderer.domElement.getBoundingClientRect()
    const ray = new THREE.Raycaster()
    ray.setFromCamera(
      new THREE.Vector2(((e.clientX - box.left) / box.width) * 2 - 1, 1 - ((e.clientY - box.top) / box.height) * 2),
      s.camera,
    )
    const hit = ray.intersectObject(s.body, false)[0]
    onAt(hit?.faceIndex ?? null)
  }
  const key = (e: React.KeyboardEvent) => {
    const s = own.current
    if (s && byKey(s, e.key, e.shiftKey)) e.preventDefault()
  }
  return (
    <figure className="mb-0" style={{ flex: '1 1 340px', minWidth: 0 }}>
      <figcaption className="label">On the panel</figcaption>
      <div
        ref={holder}
        role="application"
        tabIndex={0}
        aria-label={`The panel in space: ${says}. Arrow keys turn it, with Shift they move it, plus and minus near it, 0 puts it back.`}
        onKeyDown={key}
        onPointerMove={point}
        onPointerLeave={() => onAt(null)}
        style={{ height: HEIGHT, background: '#fbf8ef', cursor: 'grab', touchAction: 'none' }}
      />
      <figcaption className="label">
        Drag or arrow keys turn it, Shift moves it, wheel or + and − bring it nearer, 0 puts it back.
      </figcaption>
    </figure>
  )
}
