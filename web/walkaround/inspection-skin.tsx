import { Circle, G, Path, Svg, Text } from '@react-pdf/renderer'
import { Skin } from '@/core/engines/skin/skin'

/** The vehicle as a skin, each damage numbered where it is. */
export function InspectionSkin({
  view,
  skin,
  path,
  unit,
  pins,
}: {
  view: { x: number; y: number; w: number; h: number }
  skin: Skin
  path: (points: readonly { x: number; y: number }[]) => string
  unit: number
  pins: { x: number; y: number; n: number }[]
}) {
  return (
    <Svg viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`} style={{ width: '100%', height: 190 }}>
      {skin.panels.map((p) => (
        <Path key={p.id} d={path(p.path)} fill="#efe9d8" stroke="#16202e" strokeWidth={unit * 0.7} />
      ))}
      {pins.map((p) => (
        <G key={p.n}>
          <Circle cx={p.x} cy={p.y} r={unit * 5.5} fill="#9c2f1d" />
          <Text
            x={p.x}
            y={p.y + unit * 2.4}
            style={{ fontSize: unit * 6.5, fontFamily: 'Archivo', fontWeight: 600 }}
            fill="#ffffff"
            textAnchor="middle"
          >
            {String(p.n)}
          </Text>
        </G>
      ))}
    </Svg>
  )
}
