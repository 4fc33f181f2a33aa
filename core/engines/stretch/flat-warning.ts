/** What is to be told beside a result, as codes; lengths mm, fractions. `web` and `cli` own the words. */
export type FlatWarning =
  | { code: 'collapsed_mended'; collapsed: number }
  | { code: 'parts_apart'; parts: number }
  | { code: 'stopped_early' }
  | { code: 'lies_on_itself' }
  | { code: 'squeezed_beside_laid'; squeeze: number }
  | { code: 'very_small'; acrossMm: number }
  | { code: 'very_large'; acrossMm: number }
