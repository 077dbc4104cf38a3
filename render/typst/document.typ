// Walks a composed document and sets it as pages. Everything a person typed arrives as data in /document.json and is
// set with `text(string)`, which never reads it as markup: nothing typed can become source.
#let paper = json("/document.json")
// What is set: "print" is the filed document; "proof" its pages without running header and footer, "furniture" those
// alone. A proof has nothing that depends on where things land, so that after an edit only what changed is set again.
#let mode = sys.inputs.at("mode", default: "print")
#let proof = mode != "print"
#let style = paper.style
#let ink = rgb(style.colours.ink)
#let quiet = rgb(style.colours.quiet)
#let rule = rgb(style.colours.rule)
#let text-fonts = (style.fonts.text, "Noto Sans", "Noto Sans Arabic", "Noto Emoji")
#let heading-fonts = (style.fonts.headings, "Noto Sans", "Noto Sans Arabic", "Noto Emoji")
#let fault = (error: rgb("#a93f2e"), blank: rgb("#a93f2e"))

#let issued = paper.date.split("-").map(int)
#set document(
  title: paper.title,
  author: paper.author,
  date: datetime(year: issued.at(0), month: issued.at(1), day: issued.at(2)),
)
#set text(
  font: text-fonts, size: 9.5pt, fill: ink, lang: paper.language, number-type: "lining",
  dir: if paper.direction == "rtl" { rtl } else { ltr },
)
#set text(region: paper.region) if "region" in paper
#set par(leading: 0.62em, spacing: 0.9em, linebreaks: "optimized")
#set list(marker: text(fill: quiet)[–], indent: 0pt, body-indent: 7pt, spacing: 0.75em)

#let side(name) = if name == "end" { end } else { start }

// Tells the proof where a section begins and ends: a link without a look.
#let landmark(id, edge) = if proof {
  place(link("lumbix-section:" + edge + ":" + id, box(width: 1pt, height: 1pt)))
}

#let set-run(run) = {
  if run.kind == "break" { return linebreak() }
  if run.kind == "pageNumber" { return context counter(page).display() }
  if run.kind == "pageCount" { return context str(counter(page).final().first()) }
  let body = text(run.text)
  if run.at("bold", default: false) { body = text(weight: "semibold", body) }
  if run.at("italic", default: false) { body = text(style: "italic", body) }
  if run.at("quiet", default: false) { body = text(fill: quiet, body) }
  if "fault" in run {
    body = highlight(fill: rgb("#fbeeeb"), extent: 2pt, text(fill: fault.at(run.fault), body))
  }
  // A link of a private scheme makes the value a thing to click on the proof.
  if proof and "value" in run { link("lumbix:" + run.value, body) } else { body }
}
#let set-runs(runs) = runs.map(set-run).join()

#let tabular = text.with(number-width: "tabular")

#let set-cell(cell, column) = {
  let body = set-runs(cell.runs)
  if column.align == "end" { body = tabular(body) }
  body
  if "detail" in cell and cell.detail != none {
    block(above: 3.6pt, below: 0pt, text(size: 8pt, fill: quiet, set-runs(cell.detail)))
  }
}

// How many rows the unseen first cell spans that holds rows of a group together: the heading with the first row, the
// last row with the sum. 0 where an earlier one reaches. A spanning cell that may not break keeps its rows on one page.
#let holds(section) = {
  let count = section.rows.len()
  let headed = "heading" in section
  let summed = "subtotal" in section and section.subtotal != none
  if headed and summed and count == 1 { return (3, 0, 0) }
  let spans = if headed { if count > 0 { (2, 0) } else { (1,) } } else if count > 0 { (1,) } else { () }
  let first = if count > 0 { 1 } else { 0 }
  for index in range(first, count) {
    spans.push(if summed and index == count - 1 { 2 } else { 1 })
  }
  if summed { spans.push(if count > first { 0 } else { 1 }) }
  spans
}

#let set-table(it) = {
  let columns = it.columns
  let last = columns.len() - 1
  let grouped = it.sections.any(section => "heading" in section)
  let lead = if grouped { 1 } else { 0 }
  // The unseen cell at the start of a row, where the table is grouped and no earlier one reaches here.
  let held(span) = if not grouped or span == 0 { () } else {
    (table.cell(rowspan: span, breakable: false, inset: 0pt, []),)
  }
  table(
    columns: (0pt,) * lead + columns.map(column => if column.width == "rest" { 1fr } else { auto }),
    align: (start,) * lead + columns.map(column => side(column.align) + top),
    stroke: none,
    inset: (x, y) => (
      left: if x == lead { 0pt } else { 5pt }, right: if x == last + lead { 0pt } else { 5pt },
      top: if y == 0 { 3pt } else { 5pt }, bottom: if y == 0 { 4pt } else { 5.5pt },
    ),
    table.header(
      repeat: true,
      ..held(1),
      ..columns.map(column => text(size: 8.5pt, weight: "semibold", set-runs(column.heading))),
      table.hline(stroke: 0.9pt + ink),
    ),
    ..it.sections.map(section => {
      let spans = holds(section)
      let headed = "heading" in section
      let before = if headed { 1 } else { 0 }
      let parts = ()
      if headed {
        parts += held(spans.first())
        parts.push(table.cell(colspan: last + 1, breakable: false, inset: (left: 0pt, top: 11pt, bottom: 4pt), text(
          font: heading-fonts, size: 10.5pt, weight: "semibold", set-runs(section.heading),
        )))
        parts.push(table.hline(stroke: 0.4pt + rule))
      }
      for (at, row) in section.rows.enumerate() {
        parts += held(spans.at(at + before))
        parts += row.enumerate().map(((index, cell)) => table.cell(breakable: false, set-cell(cell, columns.at(index))))
        parts.push(table.hline(stroke: 0.4pt + rule))
      }
      if "subtotal" in section and section.subtotal != none {
        parts += held(spans.last())
        parts.push(table.cell(colspan: last, align: end, text(fill: quiet, set-runs(section.subtotal.label))))
        parts.push(table.cell(align: end, tabular(text(weight: "semibold", set-runs(section.subtotal.value)))))
        parts.push(table.hline(stroke: 0.6pt + ink))
      }
      parts
    }).flatten(),
  )
}

#let set-signature(it) = block(breakable: false, above: 34pt, grid(
  columns: (1fr, 74pt), column-gutter: 14pt, row-gutter: 4pt,
  line(length: 100%, stroke: 0.5pt + ink), line(length: 100%, stroke: 0.5pt + ink),
  text(size: 8pt, fill: quiet, set-runs(it.label)), text(size: 8pt, fill: quiet, set-runs(it.date)),
))

#let set-totals(it) = align(end, block(width: 52%, above: 10pt, {
  let last = it.rows.len() - 1
  table(
    columns: (1fr, auto),
    align: (start + bottom, end + bottom),
    stroke: none,
    inset: (x, y) => (
      left: if x == 0 { 0pt } else { 8pt }, right: 0pt,
      top: if it.rows.at(y).emphasis { 6.5pt } else { 4.5pt }, bottom: if it.rows.at(y).emphasis { 6.5pt } else { 4.5pt },
    ),
    ..it.rows.enumerate().map(((index, row)) => {
      let look = if row.emphasis { text.with(size: 12.5pt, weight: "semibold") } else { text.with() }
      let line = if row.emphasis { 0.9pt + ink } else { 0.4pt + rule }
      (
        if row.emphasis { table.hline(stroke: 0.9pt + ink) },
        look(set-runs(row.label)),
        tabular(look(set-runs(row.value))),
        table.hline(stroke: line),
      ).filter(part => part != none)
    }).flatten(),
  )
}))

#let set-block(it) = {
  if it.kind == "paragraph" {
    let look = it.at("look", default: "plain")
    let body = align(side(it.align), par(set-runs(it.runs)))
    if look == "quiet" { text(fill: quiet, size: 8.5pt, body) }
    else if look == "small" { text(fill: quiet, size: 8pt, body) }
    else { body }
  } else if it.kind == "heading" {
    let level = it.level - 1
    show heading: set text(font: heading-fonts, size: (21pt, 12.5pt, 10.5pt).at(level), weight: "semibold", tracking: (-0.012em, 0pt, 0pt).at(level))
    show heading: set block(above: (0pt, 18pt, 14pt).at(level), below: (10pt, 6.5pt, 6pt).at(level), sticky: true)
    heading(level: it.level, outlined: true, bookmarked: true, set-runs(it.runs))
  } else if it.kind == "list" {
    list(..it.items.map(set-runs))
  } else if it.kind == "table" {
    set-table(it)
  } else if it.kind == "totals" {
    set-totals(it)
  } else if it.kind == "section" {
    landmark(it.source, "start")
    it.blocks.map(set-block).join(parbreak())
    landmark(it.source, "end")
  } else if it.kind == "keep" {
    // Space above a block's first heading is lost at the block's edge, so the block takes it over.
    let headed = it.blocks.len() > 0 and it.blocks.first().kind == "heading"
    block(breakable: false, width: 100%, above: if headed { 18pt } else { auto }, it.blocks.map(set-block).join(parbreak()))
  } else if it.kind == "columns" {
    set par(spacing: 0.62em)
    grid(
      columns: it.widths.map(width => width * 1fr), column-gutter: 14pt,
      ..it.columns.map(blocks => blocks.map(set-block).join(parbreak())),
    )
  } else if it.kind == "picture" {
    image("/assets/" + it.picture, format: "svg", width: it.width * 1pt, alt: it.alt)
  } else if it.kind == "pageBreak" {
    pagebreak(weak: true)
  } else if it.kind == "signature" {
    set-signature(it)
  } else if it.kind == "divider" {
    line(length: 100%, stroke: 0.4pt + rule)
  } else if it.kind == "space" {
    v(it.height * 1pt)
  }
}
#let set-blocks(blocks) = blocks.map(set-block).join(parbreak())

#let margins = paper.page.margins
#let set-footer(blocks) = { line(length: 100%, stroke: 0.4pt + rule); v(-4pt); set-blocks(blocks) }

#set page(
  paper: if paper.page.size == "letter" { "us-letter" } else { paper.page.size },
  flipped: paper.page.at("landscape", default: false),
  margin: (top: margins.top * 1mm + 5mm, right: margins.right * 1mm, bottom: margins.bottom * 1mm, left: margins.left * 1mm),
  header-ascent: 8mm,
  footer-descent: 8mm,
)

#if mode == "furniture" {
  for sheet in json("/furniture.json") {
    page(header: set-blocks(sheet.header), footer: set-footer(sheet.footer), [])
  }
} else {
  set page(
    header: context if counter(page).get().first() > 1 { set-blocks(paper.followingHeader) },
    footer: context set-footer(paper.footer),
  ) if mode == "print"
  block(above: 0pt, below: 20pt, move(dy: -8mm, block(width: 100%, set-blocks(paper.header))))
  v(-8mm)
  set-blocks(paper.body)
}
