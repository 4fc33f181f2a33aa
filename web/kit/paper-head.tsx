import { Text, View } from '@react-pdf/renderer'
import { s } from '@/web/walkaround/inspection-styles'

/** What stands on top of a paper of a job: what it is, of which vehicle, whose shop, when. */
export function PaperHead({
  title,
  plan,
  shop,
  printedAt,
}: {
  title: string
  plan: { vehicle: { name: string }; customerRef: string }
  shop: string
  printedAt: string
}) {
  return (
    <View style={s.head} fixed>
      <View>
        <Text style={s.h1}>{title}</Text>
        <Text style={s.soft}>
          {plan.vehicle.name} · {plan.customerRef || 'no reference'}
        </Text>
      </View>
      <View style={{ textAlign: 'right' }}>
        <Text>{shop}</Text>
        <Text style={s.soft}>{printedAt}</Text>
      </View>
    </View>
  )
}
