import { depthModes } from './depth-modes'
import { footprintReach, footprintScale, shareAt } from './footprint'
import { gunAt, gunPath, heatEnd, pathEnd, stepsTo, type Stretch } from './gun-path'
import { nodeAt, radiated, radiatedSlope, type DepthMesh } from './layers'
import { Propagator, type StepTable } from './propagator'
import { nodeRow, type PreparedPanel, type SweepFineness, type SweepResult, type SweepRun } from './sweep-model'
import { SweepReader } from './sweep-reader'
import { goneOn, heatedInto, type Trail } from './sweep-trail'
import { afterConstant, uniformPart, type UniformPart } from './uniform-part'
import { nodePlace, WaveField, windowOf, type Side, type Window } from './waves'

const FIRST_STEP_S = 0.06
const LONGEST_STEP_S = 2
const MOST_ROUNDS = 12
/** A round shrinks what is left by the factor measured for its step before, or at worst by so many times as little. */
const ROUNDS_SAFETY = 2

interface Field {
  /** Surface over the start, by wave; then the other rows. */
  rows: Float64Array[]
  /** Flux by wave. */
  flux: Float64Array
  /** Watts from the gun, and what the room gives more than it would give to a calm panel. */
  gunW: number
  roomW: number
}

export class SweepSolver {
  private readonly mesh: DepthMesh
  private readonly x: Side
  private readonly y: Side
  private readonly field: WaveField
  private readonly waves: Propagator
  private readonly exchange: { front: number; back: number }
  private readonly depths: readonly number[]
  private readonly path: Stretch[]
  private readonly energy = { gun: 0, room: 0, back: 0, stored: 0 }
  private readonly reader: SweepReader
  private readonly level: UniformPart
  private readonly backOf: (flux: number) => number
  private readonly cellArea: number
  /** What a whole share of the gun puts in more than the calm room does: at the start, and less by each kelvin over it. */
  private readonly hot: number
  private readonly softens: number
  private trail: Trail | null = null
  /** By the length of a step: what of a difference is left after a round more. */
  private readonly shrinks = new Map<StepTable, number>()
  private now: Field
  private middle: Field
  private end: Field

  constructor(
    private readonly run_: SweepRun,
    private readonly fineness: SweepFineness,
    prepared: PreparedPanel,
  ) {
    const { sweep, gun, room, startC } = run_
    const { modes } = prepared
    this.softens = gun.coefficient - room.coefficient
    this.hot = gun.coefficient * (gun.airC - startC) + gun.flux - room.coefficient * (room.airC - startC)
    this.depths = prepared.depths
    this.mesh = modes.mesh
    this.x = prepared.x
    this.y = prepared.y
    this.cellArea = this.x.cellM * this.y.cellM
    this.field = new WaveField(this.x, this.y)
    this.exchange = modes.exchange
    const rows = this.depths.map((d) => nodeRow(this.mesh, nodeAt(this.mesh, d)))
    const backRow = nodeRow(this.mesh, this.mesh.depths.length - 1)
    this.waves = new Propagator(modes)
    this.backOf = this.waves.levelReader(backRow)
    this.level = uniformPart(run_, this.mesh, this.exchange, { read: rows, back: backRow })
    this.path = gunPath(sweep, run_.coolS)
    this.reader = new SweepReader(run_, this.x, this.y, this.depths)
    const blank = (): Field => ({
      rows: rows.map(() => new Float64Array(this.waves.waves)),
      flux: new Float64Array(this.waves.waves),
      gunW: 0,
      roomW: 0,
    })
    this.now = blank()
    this.middle = blank()
    this.end = blank()
  }

  run(): SweepResult {
    const { run_, path, reader } = this
    const times = [...new Set(run_.timesS)].sort((a, b) => a - b)
    if (times[0] === 0) reader.keep(0)
    for (const part of path) {
      const ends = part.beginS + part.seconds
      const stops = [...times.filter((t) => t > part.beginS + 1e-9 && t < ends - 1e-9), ends]
      let at = part.beginS
      this.beginFlux(part)
      let step = FIRST_STEP_S
      for (const stop of stops) {
        for (const seconds of stepsTo(stop - at, step, this.longest(part))) {
          this.step(part, at, seconds)
          at += seconds
        }
        step = Math.max(FIRST_STEP_S, Math.min(this.longest(part), (stop - part.beginS) / 2))
        at = stop
        reader.keep(stop)
      }
    }
    const endS = pathEnd(path)
    this.energy.stored = this.storedEnergy(endS)
    return { ...reader.result(), heatEndS: heatEnd(path), endS, energy: this.energy }
  }

  private longest(part: Stretch): number {
    if (!part.gun) return LONGEST_STEP_S
    const scale = footprintScale(this.run_.gun.footprint)
    const { footprint } = this.run_.gun
    const share = footprint.shape === 'disc' ? this.fineness.move / 4 : this.fineness.move
    return part.gun.speedMS === 0 ? 1 : Math.min(LONGEST_STEP_S, (share * scale) / Math.abs(part.gun.speedMS))
  }

  /** Nodes that the gun blows at within a time of its stretch; all of them where the surface radiates. */
  private windows(part: Stretch, fromS: number, toS: number): { x: Window; y: Window } | null {
    const { run_, x, y } = this
    if (run_.radiation) return { x: { from: 0, to: x.cells }, y: { from: 0, to: y.cells } }
    if (!part.gun) return null
    const reach = footprintReach(run_.gun.footprint)
    const [a, b] = [gunAt(part, fromS), gunAt(part, toS)]
    const wx = windowOf(x, Math.min(a, b) - reach - x.cellM, Math.max(a, b) + reach + x.cellM)
    const wy = windowOf(y, run_.sweep.yM - reach - y.cellM, run_.sweep.yM + reach + y.cellM)
    return wx.to > wx.from && wy.to > wy.from ? { x: wx, y: wy } : null
  }

  private shares(part: Stretch, atS: number, w: { x: Window; y: Window }): Float64Array {
    const { run_, x, y } = this
    const wide = w.x.to - w.x.from
    const out = new Float64Array((w.y.to - w.y.from) * wide)
    if (!part.gun) return out
    const gun = gunAt(part, atS)
    const cell = { along: x.cellM, across: y.cellM }
    const { footprint } = run_.gun
    const away = Array.from({ length: wide }, (_, i) => nodePlace(x, w.x.from + i) - gun)
    // A Gaussian is one share along times one across.
    const along = footprint.shape === 'gaussian' ? away.map((dx) => shareAt(footprint, dx, 0, cell)) : []
    for (let k = w.y.from; k < w.y.to; k++) {
      const dy = nodePlace(y, k) - run_.sweep.yM
      const row = (k - w.y.from) * wide
      const across = shareAt(footprint, 0, dy, cell)
      for (let i = 0; i < wide; i++)
        out[row + i] = footprint.shape === 'gaussian' ? along[i] * across : shareAt(footprint, away[i], dy, cell)
    }
    return out
  }

  /** Flux beyond what room and start already account for, at one node that is `over` hotter than the start. */
  private extraFlux(share: number, over: number): number {
    const { radiation, startC } = this.run_
    const blown = share * (this.hot - this.softens * over)
    return radiation ? blown + radiated(radiation, startC + over) + radiatedSlope(radiation, startC) * over : blown
  }

  /** The flux right after something changed outside. */
  private beginFlux(part: Stretch): void {
    const { now, field } = this
    now.flux.fill(0)
    now.gunW = 0
    now.roomW = 0
    this.trail = null
    const w = this.windows(part, part.beginS, part.beginS)
    if (!w) return
    const values = new Float64Array((w.x.to - w.x.from) * (w.y.to - w.y.from))
    field.valuesInto(values, now.rows[0], w.x, w.y)
    const shares = this.shares(part, part.beginS, w)
    const flux = values.map((v, i) => this.extraFlux(shares[i], v))
    this.weigh(now, shares, values, flux)
    field.wavesInto(now.flux, flux, w.x, w.y)
  }

  private step(part: Stretch, atS: number, seconds: number): void {
    const { now, middle, end, waves } = this
    const table = waves.table(seconds)
    const w = this.windows(part, atS, atS + seconds)
    this.depths.forEach((_, r) => {
      waves.decayInto(r, table, middle.rows[r], end.rows[r])
      middle.rows[r][0] += this.level.row(r, atS + seconds / 2)
      end.rows[r][0] += this.level.row(r, atS + seconds)
    })
    if (w) this.solveStep(part, atS, seconds, w)
    else
      for (const calm of [now, middle, end]) {
        calm.flux.fill(0)
        calm.gunW = 0
        calm.roomW = 0
      }
    waves.advance(table, w ? [now.flux, middle.flux, end.flux] : null)
    const back = this.run_.back
    this.energy.gun += (seconds / 6) * (now.gunW + 4 * middle.gunW + end.gunW)
    this.energy.room += (seconds / 6) * (this.roomInto(now) + 4 * this.roomInto(middle) + this.roomInto(end))
    const behind = this.backOf(end.flux[0]) + this.level.back(atS + seconds)
    this.energy.back +=
      (seconds / 2) * this.area * back.coefficient * (2 * (back.airC - this.run_.startC) - this.behindNow - behind)
    this.behindNow = behind
    this.reader.step(atS, seconds, [now.rows, middle.rows, end.rows])
    this.now = end
    this.end = middle
    this.middle = now
  }
  private behindNow = 0
  private get area(): number {
    return this.x.lengthM * this.y.lengthM
  }

  /** Flux at the middle and the end of a step that fits the temperatures which it brings about. */
  private solveStep(part: Stretch, atS: number, seconds: number, w: { x: Window; y: Window }): void {
    const { now, middle, end, field } = this
    const table = this.waves.table(seconds)
    const size = (w.x.to - w.x.from) * (w.y.to - w.y.from)
    const begin = new Float64Array(size)
    field.valuesInto(begin, now.rows[0], w.x, w.y)
    const targets = [
      { field: middle, own: table.own.middle, gains: table.newAtMiddle, atS: atS + seconds / 2, ahead: 0.5 },
      { field: end, own: table.own.end, gains: table.newAtEnd, atS: atS + seconds, ahead: 1 },
    ].map((t) => ({
      ...t,
      base: t.field.rows.map((row) => row.slice()),
      shares: this.shares(part, t.atS, w),
      flux: new Float64Array(size),
      values: new Float64Array(size),
    }))
    // At first as if the surface went on getting hot as it did.
    for (const t of targets) {
      const guess = this.trail ? goneOn(this.trail, { begin, w, seconds: t.ahead * seconds }) : begin
      for (let i = 0; i < size; i++) t.flux[i] = this.extraFlux(t.shares[i], guess[i])
      field.wavesInto(t.field.flux, t.flux, w.x, w.y)
    }
    const fluxes = [now.flux, middle.flux, end.flux] as const
    let before = 0
    for (let round = 0; round < MOST_ROUNDS; round++) {
      let moved = 0
      for (const t of targets) {
        const surface = t.field.rows[0]
        heatedInto(surface, t.base[0], t.gains[0], fluxes)
        field.valuesInto(t.values, surface, w.x, w.y)
        for (let i = 0; i < size; i++) {
          const yields = t.shares[i] * this.softens * t.own
          const wanted = this.extraFlux(t.shares[i], t.values[i])
          const next = (wanted + yields * t.flux[i]) / (1 + yields)
          moved = Math.max(moved, Math.abs(next - t.flux[i]) * t.own)
          t.flux[i] = next
        }
      }
      for (const t of targets) field.wavesInto(t.field.flux, t.flux, w.x, w.y)
      // Steps of one length part by one factor from round to round: it is known from the first of them.
      if (before > 0) this.shrinks.set(table, moved / before)
      const left = Math.min(1, ROUNDS_SAFETY * (this.shrinks.get(table) ?? 1)) * moved
      if (left < this.fineness.sameC) break
      before = moved
    }
    for (const t of targets) this.weigh(t.field, t.shares, t.values, t.flux)
    this.trail = { w, seconds, begin, middle: targets[0].values, end: targets[1].values }
    for (const t of targets) t.field.rows.forEach((row, r) => heatedInto(row, t.base[r], t.gains[r], fluxes))
  }

  /** Watts from the gun, and what of the room differs from a calm surface, by the flux at the nodes of a window. */
  private weigh(at: Field, shares: Float64Array, values: Float64Array, flux: Float64Array): void {
    const { room, startC, radiation } = this.run_
    at.gunW = 0
    at.roomW = 0
    for (let i = 0; i < values.length; i++) {
      const c = startC + values[i]
      const calm = shares[i] * room.coefficient * (room.airC - c)
      const shines = radiation ? radiated(radiation, c) : 0
      const known = radiation ? shines + radiatedSlope(radiation, startC) * values[i] : 0
      at.gunW += this.cellArea * (flux[i] - known + calm)
      at.roomW += this.cellArea * (shines - calm)
    }
  }
  /** Watts from the room into the whole panel. */
  private roomInto(at: Field): number {
    const { room, startC } = this.run_
    return at.roomW + room.coefficient * this.area * (room.airC - startC - at.rows[0][0])
  }

  private storedEnergy(endS: number): number {
    const heat = this.mesh.capacity
    const held = this.waves.levelReader(heat)(this.now.flux[0])
    const { room, back, startC } = this.run_
    const front = depthModes(this.mesh, 0, this.exchange, { rows: [heat] })
    const rear = depthModes(this.mesh, 0, this.exchange, { rows: [heat], enters: this.mesh.depths.length - 1 })
    const level =
      room.coefficient * (room.airC - startC) * afterConstant(front, 0, endS) +
      back.coefficient * (back.airC - startC) * afterConstant(rear, 0, endS)
    return this.area * (held + level)
  }
}
