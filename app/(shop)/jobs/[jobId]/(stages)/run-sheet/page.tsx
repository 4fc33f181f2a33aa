import { RunSheet } from '@/web/run-sheet/run-sheet'

export const metadata = { title: 'Run sheet' }

export default function RunSheetRoute() {
  return <RunSheet />
}
