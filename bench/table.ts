/** A row of a table in Markdown. */
export const tableRow = (...cells: readonly (string | number)[]): string => `| ${cells.join(' | ')} |`
