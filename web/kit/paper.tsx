import { Font } from '@react-pdf/renderer'
import { join } from 'node:path'

const files = join(process.cwd(), 'node_modules/@fontsource/archivo/files')
for (const [family, script] of [
  ['Archivo', 'latin'],
  ['ArchivoExt', 'latin-ext'],
] as const)
  Font.register({
    family,
    fonts: [400, 600].map((fontWeight) => ({
      src: join(files, `archivo-${script}-${fontWeight}-normal.woff`),
      fontWeight,
    })),
  })
Font.registerHyphenationCallback((w) => [w])

/** The faces of every paper, in the order in which a letter is looked for. */
export const PAPER_FONTS = ['Archivo', 'ArchivoExt']
