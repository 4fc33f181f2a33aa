import { z } from 'zod'
import type { Exchange, Layer } from '../../solve/heat/layers'
import type { Footprint } from '../../solve/heat/footprint'

/** Parts that the files of `cuirass heat` and `cuirass heat-plan` share. Keys carry their unit. */
export const tempC = z.number().min(-100).max(3000)
const coefficient = z.number().min(0).max(100_000)
const flux = z.number().min(-1e7).max(1e7)
export const seconds = z.number().min(0).max(100_000)
const MM = 1000

const LayerInput = z.strictObject({
  name: z.string().max(120).optional(),
  thickness_mm: z.number().gt(0).max(10_000),
  k_w_mk: z.number().gt(0).max(10_000),
  rho_kg_m3: z.number().gt(0).max(50_000),
  cp_j_kgk: z.number().gt(0).max(50_000),
})
export const LayersInput = z.array(LayerInput).min(1).max(24)

/** Air goes with its coefficient: one without the other is half a sentence. */
export const airWithCoefficient = (e: { air_c?: number | undefined; h_w_m2k?: number | undefined }): boolean =>
  (e.air_c === undefined) === (e.h_w_m2k === undefined)
export const AIR_PAIR = { error: 'air_without_coefficient', path: ['h_w_m2k'] }

export const exchangeFields = {
  air_c: tempC.optional(),
  h_w_m2k: coefficient.optional(),
  flux_w_m2: flux.optional(),
}
export const SideInput = z.strictObject({ air_c: tempC, h_w_m2k: coefficient })
export const RadiationInput = z.strictObject({ emissivity: z.number().min(0).max(1), surround_c: tempC })
const size = z.number().gt(0).max(10_000)
const FootprintInput = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('gaussian'), sigma_mm: size }),
  z.strictObject({ shape: z.literal('disc'), radius_mm: size }),
])
export const gunFields = { ...exchangeFields, footprint: FootprintInput }

export const layersOf = (layers: z.infer<typeof LayersInput>): Layer[] =>
  layers.map((l) => ({
    thicknessM: l.thickness_mm / MM,
    conductivity: l.k_w_mk,
    heatCapacity: l.rho_kg_m3 * l.cp_j_kgk,
  }))

type ExchangeInput = { [K in keyof typeof exchangeFields]?: number | undefined }
export const exchangeOf = (e: ExchangeInput | undefined): Exchange => ({
  airC: e?.air_c ?? 0,
  coefficient: e?.h_w_m2k ?? 0,
  flux: e?.flux_w_m2 ?? 0,
})
export const footprintOf = (f: z.infer<typeof FootprintInput>): Footprint =>
  f.shape === 'gaussian' ? { shape: 'gaussian', sigmaM: f.sigma_mm / MM } : { shape: 'disc', radiusM: f.radius_mm / MM }
