/** One figure of an infrared thermometer: what it shows, °C, which need not be what the film has. */
export interface ThermometerFigure {
  tempC: number
}
/** What the thermometer looks at, as far as a stand-in has to know it. */
export interface Scene {
  /** The film when the gun was taken away, °C. */
  filmC: number
  /** Seconds since then when the thermometer was switched on; below 0: the gun still blows. */
  awayS: number
  /** A mirror layer, and whether tape or spray dulls it. */
  mirror: boolean
  dulled: boolean
}
/** An infrared thermometer, real or simulated: figures come until it is switched off. */
export interface Thermometer {
  /** Gives what switches it off. */
  start(scene: Scene, onFigure: (figure: ThermometerFigure) => void): () => void
}

const ROOM_C = 20
/** Film on a panel cools to the room in about so long; the instrument follows in so long, s. Assumed. */
const COOLS_S = 70
const LAG_S = 0.45
/** In the air stream it shows 130 where the film has 100, and less as the air clears, s. Common practice, no source. */
const STREAM_SHARE = 0.3
const CLEARS_S = 2.5
/** A bare mirror shows mostly the room. Assumed. */
const MIRROR_EMITS = 0.25
const NOISE_C = 0.6

/** What the film has after so many seconds. */
const filmAt = (filmC: number, awayS: number): number =>
  awayS <= 0 ? filmC : ROOM_C + (filmC - ROOM_C) * Math.exp(-awayS / COOLS_S)

/** What stands in front of the instrument: the film, the stream of hot air over it, and what a mirror reflects. */
export function seenAt({ filmC, mirror, dulled }: Omit<Scene, 'awayS'>, awayS: number): number {
  const film = filmAt(filmC, awayS)
  const clear = Math.max(0, Math.min(1, awayS / CLEARS_S))
  const withAir = film + STREAM_SHARE * film * (1 - clear)
  return mirror && !dulled ? MIRROR_EMITS * withAir + (1 - MIRROR_EMITS) * ROOM_C : withAir
}

/** The stand-in’s figures, one for each step of `everyS`: late, noisy, and led astray as a real one is. */
export function* simulatedFigures(scene: Scene, random: () => number, everyS = 0.25): Generator<ThermometerFigure> {
  let shown = ROOM_C
  for (let i = 0; ; i++) {
    const seen = seenAt(scene, scene.awayS + i * everyS)
    shown += (seen - shown) * (1 - Math.exp(-everyS / LAG_S))
    yield { tempC: Math.round((shown + NOISE_C * (2 * random() - 1)) * 10) / 10 }
  }
}

const EVERY_MS = 250

const simulated: Thermometer = {
  start(scene, onFigure) {
    const figures = simulatedFigures(scene, Math.random, EVERY_MS / 1000)
    const clock = setInterval(() => {
      const { value } = figures.next() as { value: ThermometerFigure }
      onFigure(value)
    }, EVERY_MS)
    return () => clearInterval(clock)
  },
}

/** The thermometer that this server is set up with; null where there is none. */
export const thermometer = (): Thermometer | null => (process.env.THERMOMETER === 'simulated' ? simulated : null)
