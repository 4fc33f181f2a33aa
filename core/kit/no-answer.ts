/** Sound input that has no answer: why, with what it hangs on; `named` are the parts that are at fault. */
export interface NoAnswer {
  code: string
  facts: Record<string, string | number>
  named?: readonly string[]
}
