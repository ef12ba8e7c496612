import {
  BorderStyle,
  Document,
  HeadingLevel,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx'

/** A title, some sentences, and a table under it. */
interface TableText {
  title: string
  text: string[]
  head: string[]
  /** Of the columns, in hundredths of the page's width. */
  widths: number[]
  rows: string[][]
}

/** Makes an Office Open XML document (ISO/IEC 29500) of a table, its head repeated on each page. */
export function tableDocument(of: TableText): Promise<Blob> {
  const line = { style: BorderStyle.SINGLE, size: 4, color: 'BBB3A2' }
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' }
  const row = (cells: string[], head: boolean) =>
    new TableRow({
      tableHeader: head,
      cantSplit: true,
      children: cells.map(
        (text, i) =>
          new TableCell({
            width: { size: of.widths[i], type: WidthType.PERCENTAGE },
            borders: { top: none, left: none, right: none, bottom: line },
            margins: { top: 50, bottom: 50, left: 60, right: 60 },
            children: text
              .split(/\r?\n/)
              .map(
                (part) =>
                  new Paragraph({ children: [new TextRun({ text: part, bold: head, size: 19 })] }),
              ),
          }),
      ),
    })
  return Packer.toBlob(
    new Document({
      title: of.title,
      creator: 'Tamiz',
      sections: [
        {
          children: [
            new Paragraph({ text: of.title, heading: HeadingLevel.HEADING_1 }),
            ...of.text.map((text) => new Paragraph({ text, spacing: { before: 80, after: 80 } })),
            new Table({
              width: { size: 100, type: WidthType.PERCENTAGE },
              rows: [row(of.head, true), ...of.rows.map((cells) => row(cells, false))],
            }),
          ],
        },
      ],
    }),
  )
}
