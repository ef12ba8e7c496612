import {
  AlignmentType,
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
import type { WrittenRecord } from '@/api/client'

/** A title, some sentences, and a table under it. */
interface TableText {
  title: string
  text: string[]
  head: string[]
  /** Of the columns, in hundredths of the page's width. */
  widths: number[]
  rows: string[][]
}

/** A table with hairlines, its head repeated on each page; right tells columns of figures. */
function plainTable(head: string[], rows: string[][], widths: number[], right: boolean[] = []) {
  const line = { style: BorderStyle.SINGLE, size: 4, color: 'BBB3A2' }
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' }
  const row = (cells: string[], bold: boolean) =>
    new TableRow({
      tableHeader: bold,
      cantSplit: true,
      children: cells.map(
        (text, i) =>
          new TableCell({
            width: { size: widths[i], type: WidthType.PERCENTAGE },
            borders: { top: none, left: none, right: none, bottom: line },
            margins: { top: 50, bottom: 50, left: 60, right: 60 },
            children: text.split(/\r?\n/).map(
              (part) =>
                new Paragraph({
                  alignment: right[i] ? AlignmentType.RIGHT : AlignmentType.LEFT,
                  children: [new TextRun({ text: part, bold, size: 19 })],
                }),
            ),
          }),
      ),
    })
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [row(head, true), ...rows.map((cells) => row(cells, false))],
  })
}

/** Makes an Office Open XML document (ISO/IEC 29500) of a table, its head repeated on each page. */
export function tableDocument(of: TableText): Promise<Blob> {
  return Packer.toBlob(
    new Document({
      title: of.title,
      creator: 'Tamiz',
      sections: [
        {
          children: [
            new Paragraph({ text: of.title, heading: HeadingLevel.HEADING_1 }),
            ...of.text.map((text) => new Paragraph({ text, spacing: { before: 80, after: 80 } })),
            plainTable(of.head, of.rows, of.widths),
          ],
        },
      ],
    }),
  )
}

/** Makes one of a document of sections: headings, paragraphs, lists, tables whose heads are repeated, lines as they are typed. */
export function recordDocument(of: WrittenRecord['document']): Promise<Blob> {
  const children: (Paragraph | Table)[] = [
    new Paragraph({ text: of.title, heading: HeadingLevel.TITLE }),
    ...(of.under ? [new Paragraph({ text: of.under, spacing: { after: 120 } })] : []),
  ]
  for (const s of of.sections) {
    children.push(
      new Paragraph({ text: s.title, heading: HeadingLevel.HEADING_1, spacing: { before: 240 } }),
    )
    if (!s.parts.length && s.empty) children.push(new Paragraph(s.empty))
    for (const p of s.parts) {
      if (p.title) children.push(new Paragraph({ text: p.title, heading: HeadingLevel.HEADING_2 }))
      if (p.text) children.push(new Paragraph({ text: p.text, spacing: { before: 60, after: 60 } }))
      for (const text of p.items ?? []) children.push(new Paragraph({ text, bullet: { level: 0 } }))
      for (const text of p.code?.split(/\r?\n/) ?? [])
        children.push(
          new Paragraph({ children: [new TextRun({ text, font: 'Courier New', size: 18 })] }),
        )
      if (p.table) {
        const share = Math.floor(100 / p.table.head.length)
        children.push(
          plainTable(
            p.table.head,
            p.table.rows,
            p.table.head.map(() => share),
            p.table.right,
          ),
          new Paragraph(''),
        )
      }
    }
  }
  return Packer.toBlob(
    new Document({ title: of.title, creator: 'Tamiz', sections: [{ children }] }),
  )
}
