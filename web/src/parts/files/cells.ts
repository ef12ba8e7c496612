/** A spreadsheet takes a cell for a formula when it begins with one of these, marks before it left aside. */
const formula = /^'*[=+\-@\t\r]/

/** A cell so that no spreadsheet takes it for a formula: with an apostrophe before it, which a spreadsheet does not show. */
export function marked(cell: string): string {
  return formula.test(cell) ? `'${cell}` : cell
}

/** What stands in a cell that was marked. */
export function unmarked(cell: string): string {
  return cell.startsWith("'") && formula.test(cell) ? cell.slice(1) : cell
}
