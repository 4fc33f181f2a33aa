'use client'

import * as THREE from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import { gridPieces } from '@/web/charts/film-lines'
import { alongSides, strokeTriangles } from '@/web/charts/surface-marks'
import { BAND_FILLS } from './bands'

export interface Scene {
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

export function build(host: HTMLElement): Scene | null {
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

export const reachOf = (positions: Float64Array): number => {
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
export function fill(s: Scene, map: SurfaceMap): void {
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
export function stroke(map: SurfaceMap, t: number, reach: number, lift: number): number[] {
  const shares = alongSides(map, t)
  if (!shares) return []
  const at = (k: number, d: number) => map.positions[3 * (map.triangles[3 * t + k] as number) + d] as number
  const along = [0, 1, 2].map((d) => (at(1, d) - at(0, d)) * shares[0] + (at(2, d) - at(0, d)) * shares[1])
  const l = Math.hypot(...along) || 1
  const long = reach * (0.012 + Math.min(0.02, 0.2 * (map.stretch[t] as number)))
  const from = middle(map, t)
  return [-1, 1].flatMap((side) =>
    from.map((x, d) => x + (side * long * (along[d] as number)) / l + (d === 2 ? 1.5 * lift : 0)),
  )
}

export function setLines(lines: THREE.LineSegments, places: number[]): void {
  lines.geometry.dispose()
  lines.geometry = new THREE.BufferGeometry()
  lines.geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(places), 3))
}

export function colour(body: THREE.Mesh, band: Uint8Array): void {
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
export function look(s: Scene): void {
  const c = s.body.geometry.boundingSphere?.center ?? new THREE.Vector3()
  // All of it within the narrower side of the view.
  const far = (s.reach * 0.92) / Math.sin((s.camera.fov * Math.PI) / 360) / Math.min(1, s.camera.aspect)
  s.camera.position.set(c.x - far * 0.35, c.y + far * 0.3, c.z + far * 0.9)
  s.camera.near = far / 100
  s.camera.far = far * 10
  s.camera.updateProjectionMatrix()
  s.controls.target.copy(c)
  s.controls.update()
}

export function byKey(s: Scene, key: string, shift: boolean): boolean {
  const directions: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  }
  const eye = s.camera.position.clone().sub(s.controls.target)
  const direction = directions[key]
  if (direction && shift) {
    const step = eye.length() * KEY_STEP
    const right = new THREE.Vector3().setFromMatrixColumn(s.camera.matrix, 0).multiplyScalar(-direction[0] * step)
    const up = new THREE.Vector3().setFromMatrixColumn(s.camera.matrix, 1).multiplyScalar(-direction[1] * step)
    s.controls.target.add(right).add(up)
    s.camera.position.add(right).add(up)
  } else if (direction) {
    const ball = new THREE.Spherical().setFromVector3(eye)
    ball.theta += direction[0] * KEY_TURN
    ball.phi = Math.max(0.05, Math.min(Math.PI - 0.05, ball.phi - direction[1] * KEY_TURN))
    s.camera.position.copy(s.controls.target).add(new THREE.Vector3().setFromSpherical(ball))
  } else if (key === '+' || key === '=' || key === '-')
    s.camera.position.copy(s.controls.target).add(eye.multiplyScalar(key === '-' ? 1 + KEY_STEP : 1 - KEY_STEP))
  else if (key === '0') look(s)
  else return false
  s.controls.update()
  s.draw()
  return true
}

export function middle(map: SurfaceMap, t: number): [number, number, number] {
  return [0, 1, 2].map((d) =>
    [0, 1, 2].reduce((s, k) => s + (map.positions[3 * (map.triangles[3 * t + k] as number) + d] as number) / 3, 0),
  ) as [number, number, number]
}

/** A key turns the panel by this much, and moves or nears it by this share of what is seen. */
export const KEY_TURN = Math.PI / 18
export const KEY_STEP = 0.1
/** Lines lie this much in front of the film, as a share of the panel's reach, so that it does not hide them. */
export const IN_FRONT = 0.003
