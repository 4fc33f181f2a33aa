'use client'

import { useEffect, useRef, useState } from 'react'
import * as THREE from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import { gridPieces } from '@/web/charts/film-lines'
import { alongSides, strokeTriangles } from '@/web/charts/surface-marks'
import { BAND_FILLS } from './bands'

interface Scene {
  renderer: THREE.WebGLRenderer
  scene: THREE.Scene
  camera: THREE.PerspectiveCamera
  controls: OrbitControls
  body: THREE.Mesh
  lines: THREE.LineSegments
  rim: THREE.LineSegments
  strokes: THREE.LineSegments
  marker: THREE.Mesh
  reach: number
  draw: () => void
}
const HEIGHT = 330
/** A key turns the panel by this much, and moves or nears it by this share of what is seen. */
const KEY_TURN = Math.PI / 18
const KEY_STEP = 0.1
/** Lines lie this much in front of the film, as a share of the panel's reach, so that it does not hide them. */
const IN_FRONT = 0.003

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

function build(host: HTMLElement): Scene | null {
  let renderer: THREE.WebGLRenderer
  try {
    renderer = new THREE.WebGLRenderer({ antialias: true, alpha: true })
  } catch {
    return null
  }
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio))
  host.appendChild(renderer.domElement)
  renderer.domElement.style.width = '100%'
  renderer.domElement.style.height = '100%'
  renderer.domElement.style.display = 'block'
  const scene = new THREE.Scene()
  const camera = new THREE.PerspectiveCamera(30, 1, 1, 200_000)
  const light = new THREE.DirectionalLight('#ffffff', 1.6)
  camera.add(light)
  light.position.set(-0.6, 0.8, 1)
  scene.add(camera, new THREE.AmbientLight('#ffffff', 1.7))
  const body = new THREE.Mesh(
    new THREE.BufferGeometry(),
    new THREE.MeshLambertMaterial({
      vertexColors: true,
      side: THREE.DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    }),
  )
  const ink = new THREE.LineBasicMaterial({ color: '#1b2433', transparent: true, opacity: 0.55 })
  const lines = new THREE.LineSegments(new THREE.BufferGeometry(), ink)
  const rim = new THREE.LineSegments(new THREE.BufferGeometry(), new THREE.LineBasicMaterial({ color: '#1b2433' }))
  const marker = new THREE.Mesh(new THREE.SphereGeometry(1, 16, 12), new THREE.MeshBasicMaterial({ color: '#a32a1e' }))
  const strokes = new THREE.LineSegments(new THREE.BufferGeometry(), new THREE.LineBasicMaterial({ color: '#1b2433' }))
  marker.visible = false
  scene.add(body, lines, rim, strokes, marker)
  const controls = new OrbitControls(camera, renderer.domElement)
  const draw = () => renderer.render(scene, camera)
  controls.addEventListener('change', draw)
  return { renderer, scene, camera, controls, body, lines, rim, strokes, marker, reach: 1, draw }
}
const reachOf = (positions: Float64Array): number => {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  for (let i = 0; i < positions.length; i++) {
    const [d, x] = [i % 3, positions[i] as number]
    if (x < (low[d] as number)) low[d] = x
    if (x > (high[d] as number)) high[d] = x
  }
  return Math.hypot(...high.map((h, d) => h - (low[d] as number)))
}

/**
 * The map's triangles with corners of their own, so that each has one colour; the film's grid and all rims over them.
 */
function fill(s: Scene, map: SurfaceMap): void {
  const { positions, triangles } = map
  const corners = new Float32Array(triangles.length * 3)
  triangles.forEach((v, c) => corners.set(positions.subarray(3 * v, 3 * v + 3), 3 * c))
  s.body.geometry.dispose()
  s.body.geometry = new THREE.BufferGeometry()
  s.body.geometry.setAttribute('position', new THREE.BufferAttribute(corners, 3))
  s.body.geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(corners.length), 3))
  s.body.geometry.computeVertexNormals()
  s.body.geometry.computeBoundingSphere()
  s.reach = s.body.geometry.boundingSphere?.radius ?? 1
  const lift = s.reach * IN_FRONT
  const at = (v: [number, number, number], share: number[]) =>
    [0, 1, 2].map(
      (d) =>
        share.reduce((sum, w, k) => sum + w * (positions[3 * (v[k] as number) + d] as number), 0) +
        (d === 2 ? lift : 0),
    )
  setLines(
    s.lines,
    gridPieces(map).flatMap(({ corners: v, ends }) => [...at(v, ends[0]), ...at(v, ends[1])]),
  )
  const open = new Map<string, [number, number]>()
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k] as number, triangles[t + ((k + 1) % 3)] as number]
      const key = a < b ? `${a} ${b}` : `${b} ${a}`
      if (open.has(key)) open.delete(key)
      else open.set(key, [a, b])
    }
  setLines(
    s.rim,
    [...open.values()]
      .flat()
      .flatMap((v) => [0, 1, 2].map((d) => (positions[3 * v + d] as number) + (d === 2 ? lift : 0))),
  )
  setLines(
    s.strokes,
    strokeTriangles(map).flatMap((t) => stroke(map, t, s.reach, lift)),
  )
  s.marker.scale.setScalar(s.reach * 0.018)
}
/** A stroke in space along the greatest stretch of a triangle, longer where it is more. */
function stroke(map: SurfaceMap, t: number, reach: number, lift: number): number[] {
  const shares = alongSides(map, t)
  if (!shares) return []
  const at = (k: number, d: number) => map.positions[3 * (map.triangles[3 * t + k] as number) + d] as number
  const way = [0, 1, 2].map((d) => (at(1, d) - at(0, d)) * shares[0] + (at(2, d) - at(0, d)) * shares[1])
  const l = Math.hypot(...way) || 1
  const long = reach * (0.012 + Math.min(0.02, 0.2 * (map.stretch[t] as number)))
  const from = middle(map, t)
  return [-1, 1].flatMap((side) =>
    from.map((x, d) => x + (side * long * (way[d] as number)) / l + (d === 2 ? 1.5 * lift : 0)),
  )
}
function setLines(lines: THREE.LineSegments, places: number[]): void {
  lines.geometry.dispose()
  lines.geometry = new THREE.BufferGeometry()
  lines.geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(places), 3))
}
function colour(body: THREE.Mesh, band: Uint8Array): void {
  const list = body.geometry.getAttribute('color') as THREE.BufferAttribute | undefined
  if (!list) return
  const fills = BAND_FILLS.map((f) => new THREE.Color(f))
  for (let c = 0; c < list.count; c++) {
    const f = fills[band[Math.floor(c / 3)] ?? 0] as THREE.Color
    list.setXYZ(c, f.r, f.g, f.b)
  }
  list.needsUpdate = true
}
/** From the front, a little from the left and above. */
function look(s: Scene): void {
  const c = s.body.geometry.boundingSphere?.center ?? new THREE.Vector3()
  // All of it within the narrower way of the view.
  const far = (s.reach * 0.92) / Math.sin((s.camera.fov * Math.PI) / 360) / Math.min(1, s.camera.aspect)
  s.camera.position.set(c.x - far * 0.35, c.y + far * 0.3, c.z + far * 0.9)
  s.camera.near = far / 100
  s.camera.far = far * 10
  s.camera.updateProjectionMatrix()
  s.controls.target.copy(c)
  s.controls.update()
}
function byKey(s: Scene, key: string, shift: boolean): boolean {
  const ways: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  }
  const eye = s.camera.position.clone().sub(s.controls.target)
  const way = ways[key]
  if (way && shift) {
    const step = eye.length() * KEY_STEP
    const right = new THREE.Vector3().setFromMatrixColumn(s.camera.matrix, 0).multiplyScalar(-way[0] * step)
    const up = new THREE.Vector3().setFromMatrixColumn(s.camera.matrix, 1).multiplyScalar(-way[1] * step)
    s.controls.target.add(right).add(up)
    s.camera.position.add(right).add(up)
  } else if (way) {
    const ball = new THREE.Spherical().setFromVector3(eye)
    ball.theta += way[0] * KEY_TURN
    ball.phi = Math.max(0.05, Math.min(Math.PI - 0.05, ball.phi - way[1] * KEY_TURN))
    s.camera.position.copy(s.controls.target).add(new THREE.Vector3().setFromSpherical(ball))
  } else if (key === '+' || key === '=' || key === '-')
    s.camera.position.copy(s.controls.target).add(eye.multiplyScalar(key === '-' ? 1 + KEY_STEP : 1 - KEY_STEP))
  else if (key === '0') look(s)
  else return false
  s.controls.update()
  s.draw()
  return true
}
function middle(map: SurfaceMap, t: number): [number, number, number] {
  return [0, 1, 2].map((d) =>
    [0, 1, 2].reduce((s, k) => s + (map.positions[3 * (map.triangles[3 * t + k] as number) + d] as number) / 3, 0),
  ) as [number, number, number]
}
