/** Rows that stay legible: one for each bank, and never more than so many of it side by side, evenly shared. */
export function rowsOf<One>(banks: readonly (readonly One[])[], most: number): One[][] {
  return banks.flatMap((bank) => {
    const parts = Math.max(1, Math.ceil(bank.length / most))
    const inRow = Math.ceil(bank.length / parts)
    return Array.from({ length: parts }, (_, at) => bank.slice(at * inRow, (at + 1) * inRow))
  })
}
