/** One layer of a wall, from the outside in. SI units: metres, W/(m K), J/(m³ K). */
export interface Layer {
  thicknessM: number
  conductivity: number
  /** Heat that a cubic metre takes up for each kelvin: density times specific heat. */
  heatCapacity: number
}

/** Heat given over at a surface: a stream of air, and a flux of its own. °C, W/(m² K), W/m². */
export interface Exchange {
  airC: number
  coefficient: number
  flux: number
}
export const INSULATED: Exchange = { airC: 0, coefficient: 0, flux: 0 }

/** A grey surface that looks at surroundings of one temperature. */
export interface Radiation {
  emissivity: number
  surroundC: number
}
/** Stefan-Boltzmann constant, W/(m² K⁴). Published: CODATA 2018. */
const STEFAN_BOLTZMANN = 5.670374419e-8
const KELVIN = 273.15

/** Net radiation into the surface, W/m². */
export function radiated({ emissivity, surroundC }: Radiation, surfaceC: number): number {
  return emissivity * STEFAN_BOLTZMANN * ((surroundC + KELVIN) ** 4 - (surfaceC + KELVIN) ** 4)
}
/** How much less comes in for each kelvin that the surface is hotter, W/(m² K). */
export function radiatedSlope({ emissivity }: Radiation, surfaceC: number): number {
  return 4 * emissivity * STEFAN_BOLTZMANN * (surfaceC + KELVIN) ** 3
}

/** A wall cut into nodes from front to back: finite volumes round the nodes, nodes at every boundary of two layers. */
export interface DepthMesh {
  /** Depth of each node, m. */
  depths: Float64Array
  /** Heat capacity of the volume round each node, J/(m² K). */
  capacity: Float64Array
  /** Conductance from node i to i + 1, W/(m² K). */
  conductance: Float64Array
  /** Conductivity times depth of the volume round each node, W/K: what spreads sideways. */
  lateral: Float64Array
}

export interface Fineness {
  /** The shortest time that is asked about, s: the first volume is thinner than heat gets in that time. */
  shortestS: number
  /** A volume grows by this share of its distance from the nearer surface, in diffusion lengths. */
  growth: number
  /** Volumes of each layer, at least. */
  least: number
}

/** Depths that count as one, m. */
const SAME_DEPTH_M = 1e-9
const FIRST_VOLUME = 1 / 32

/**
 * Volumes as thick as heat can tell apart: in the scale of diffusion (depth over the root of diffusivity) they grow
 * with the distance from the nearer surface. `marks`: depths that are to be nodes, m.
 */
export function depthMesh(layers: readonly Layer[], marks: readonly number[], fineness: Fineness): DepthMesh {
  const parts = splitAt(layers, marks)
  const scales = parts.map((p) => p.thicknessM * Math.sqrt(p.heatCapacity / p.conductivity))
  const whole = scales.reduce((sum, s) => sum + s, 0)
  const first = Math.sqrt(fineness.shortestS) * FIRST_VOLUME
  const depths = [0]
  const capacity = [0]
  const conductance: number[] = []
  const lateral = [0]
  let before = 0
  let depth = 0
  parts.forEach((part, i) => {
    const scale = scales[i]
    for (const share of sharesOf({ before, scale, whole, first, ...fineness })) {
      const thick = share * part.thicknessM
      const half = (part.heatCapacity * thick) / 2
      const spread = (part.conductivity * thick) / 2
      capacity[capacity.length - 1] += half
      lateral[lateral.length - 1] += spread
      depth += thick
      depths.push(depth)
      capacity.push(half)
      lateral.push(spread)
      conductance.push(part.conductivity / thick)
    }
    before += scale
  })
  return {
    depths: Float64Array.from(depths),
    capacity: Float64Array.from(capacity),
    conductance: Float64Array.from(conductance),
    lateral: Float64Array.from(lateral),
  }
}

function splitAt(layers: readonly Layer[], marks: readonly number[]): Layer[] {
  const parts: Layer[] = []
  let from = 0
  for (const layer of layers) {
    const to = from + layer.thicknessM
    const cuts = marks.filter((m) => m > from + SAME_DEPTH_M && m < to - SAME_DEPTH_M).sort((a, b) => a - b)
    let at = from
    for (const cut of [...cuts, to]) {
      if (cut - at > SAME_DEPTH_M) parts.push({ ...layer, thicknessM: cut - at })
      at = cut
    }
    from = to
  }
  return parts
}

/** How a layer is shared among its volumes; their sum is 1. */
function sharesOf(p: { before: number; scale: number; whole: number; first: number } & Fineness): number[] {
  const sizes: number[] = []
  const most = p.scale / p.least
  let at = 0
  while (at < p.scale * (1 - 1e-12)) {
    const near = Math.min(p.before + at, p.whole - p.before - at)
    const size = Math.min(most, Math.max(p.first, near * p.growth), p.scale - at)
    sizes.push(size)
    at += size
  }
  // A crumb at the end of the layer is shared out among the others.
  if (sizes.length > 1 && sizes[sizes.length - 1] < sizes[sizes.length - 2] / 2) sizes.pop()
  const sum = sizes.reduce((a, b) => a + b, 0)
  return sizes.map((s) => s / sum)
}

/** The node nearest to a depth. */
export function nodeAt(mesh: DepthMesh, depthM: number): number {
  let best = 0
  mesh.depths.forEach((d, i) => {
    if (Math.abs(d - depthM) < Math.abs(mesh.depths[best] - depthM)) best = i
  })
  return best
}
