// Walks a composed document and sets it as pages. Everything a person typed arrives as data in /document.json and is
// set with `text(string)`, which never reads it as markup: nothing typed can become source.
#let paper = json("/document.json")
// What is set: "print" is the filed document; "proof" its pages without running header and footer, "furniture" those
// alone. A proof has nothing that depends on where things land, so that after an edit only what changed is set again.
#let mode = sys.inputs.at("mode", default: "print")
#let proof = mode != "print"
#let style = paper.style
#let rtl-page = paper.direction == "rtl"
// What functions below read of the document stands under a name of its own: one that named `paper` would be another function,
// with nothing kept of it, as soon as a word of the document changes.
#let pictures = paper.pictures
#let digits = paper.digits.clusters()
#let annex-pages = paper.annexPages

#let ink = rgb(style.colours.ink)
#let quiet = rgb(style.colours.quiet)
#let accent = rgb(style.colours.accent)
#let rule = rgb(style.colours.rule)
#let tint = rgb(style.colours.tint)
#let text-fonts = (style.fonts.text, "Noto Sans", "IBM Plex Sans Arabic", "Noto Emoji")
#let heading-fonts = (style.fonts.headings, "Noto Sans", "IBM Plex Sans Arabic", "Noto Emoji")
#let fault = (error: rgb("#a93f2e"), blank: rgb("#a93f2e"))

// The type scale: running text, two smaller sizes for what is beside it, and headings each a step larger.
#let size = style.type.text * 1pt
#let small = size * 0.9
#let smaller = size * 0.85
#let heading-sizes = (size * calc.pow(style.type.step, 3), size * style.type.step, size * 1.1)

// A whole number in the digits of the document's language.
#let in-digits(number) = str(number).replace(regex("[0-9]"), digit => digits.at(int(digit.text)))

#let issued = paper.date.split("-").map(int)
#set document(
  title: paper.title,
  author: paper.author,
  date: datetime(year: issued.at(0), month: issued.at(1), day: issued.at(2)),
)
#set text(
  font: text-fonts, size: size, fill: ink, lang: paper.language, number-type: "lining", hyphenate: true,
  dir: if rtl-page { rtl } else { ltr },
)
#set text(region: paper.region) if "region" in paper
#set par(leading: 0.62em, spacing: 0.9em, linebreaks: "optimized")
#set list(marker: text(fill: quiet)[–], indent: 0pt, body-indent: 7pt, spacing: 0.75em)
#set enum(numbering: number => text(fill: quiet, in-digits(number) + "."), indent: 0pt, body-indent: 6pt, spacing: 0.75em)

// Physical sides, since a line of nothing but a Latin name would begin on the left of an Arabic page.
#let side(name) = if (name == "end") == rtl-page { left } else { right }
// In tables, figures stand on the right on every page: their digits run from left to right in Arabic too.
#let cell-side(name) = if name == "end" { right } else { side("start") }
// Lengths at the start and end of a line, whichever way the page is written.
#let sides(first, last) = if rtl-page { (right: first, left: last) } else { (left: first, right: last) }
#let unbroken = text.with(hyphenate: false)
#let tabular = text.with(number-width: "tabular", hyphenate: false)

// Tells the proof where a section begins and ends: a link without a look.
#let landmark(id, edge) = if proof {
  place(link("lumbix-section:" + edge + ":" + id, box(width: 1pt, height: 1pt)))
}
// A link of a private scheme makes a value a thing to click on the proof.
#let clickable(it, body) = if proof and "value" in it { link("lumbix:" + it.value, body) } else { body }

// Words that stay on one line are in a box.
#let set-part(part) = if type(part) == str { text(part) } else { box(text(part.whole)) }

// Plain words arrive as a string, anything else as a dictionary (`setRuns` in set-runs.ts).
#let set-run(run) = {
  if type(run) == str { return text(run) }
  if "kind" in run {
    if run.kind == "break" { return linebreak() }
    if run.kind == "room" { return h(run.ems * 1em) }
    if run.kind == "pageNumber" { return context in-digits(counter(page).get().first()) }
    return context in-digits(counter(page).final().first() + annex-pages)
  }
  if "whole" in run { return box(text(run.whole)) }
  let body = if "pieces" in run { run.pieces.map(text).join(h(0pt)) } else if "parts" in run { run.parts.map(set-part).join() } else { text(run.text) }
  if "turned" in run { body = text(dir: if rtl-page { ltr } else { rtl }, body) }
  if "bold" in run { body = text(weight: "semibold", body) }
  if "italic" in run { body = text(style: "italic", body) }
  if "underline" in run { body = underline(offset: 2pt, stroke: 0.5pt, body) }
  if "quiet" in run { body = text(fill: quiet, body) }
  if "colour" in run { body = text(fill: if run.colour == "accent" { accent } else { rgb(run.colour) }, body) }
  if "fault" in run {
    body = highlight(fill: rgb("#fbeeeb"), extent: 2pt, text(fill: fault.at(run.fault), body))
  }
  if "link" in run { body = link(run.link, body) }
  clickable(run, body)
}
#let set-runs(runs) = if type(runs) == str { text(runs) } else { runs.map(set-run).join() }

#let formats = ("image/svg+xml": "svg", "image/png": "png", "image/jpeg": "jpg")
#let set-picture(it, most: none) = clickable(it, image(
  "/assets/" + it.picture, format: formats.at(pictures.at(it.picture)), alt: it.alt,
  width: if most == none { it.width * 1pt } else { calc.min(it.width * 1pt, most) },
))

// ---- tables ----

#let looks = (
  rules: (size: size, pad: 5pt, gap: 5pt, between: 0.4pt + rule, band: none, edge: 0pt, head: 0.9pt + ink),
  bands: (size: size, pad: 5.5pt, gap: 5pt, between: none, band: tint, edge: 6pt, head: 0.9pt + accent),
  dense: (size: size * 0.86, pad: 3.4pt, gap: 4.5pt, between: 0.25pt + rule, band: none, edge: 0pt, head: 0.6pt + ink),
)

#let is-summed(section) = "subtotal" in section and section.subtotal != none

// How many rows the unseen first cell spans that holds rows of a group together: the heading with the first row, the
// last row with the sum. 0 where an earlier one reaches. A spanning cell that may not break keeps its rows on one page.
#let holds(section) = {
  let count = section.rows.len()
  let headed = "heading" in section
  let summed = is-summed(section)
  if headed and summed and count == 1 { return (3, 0, 0) }
  let spans = if headed { if count > 0 { (2, 0) } else { (1,) } } else if count > 0 { (1,) } else { () }
  let first = if count > 0 { 1 } else { 0 }
  for index in range(first, count) {
    spans.push(if summed and index == count - 1 { 2 } else { 1 })
  }
  if summed { spans.push(if count > first { 0 } else { 1 }) }
  spans
}

// A running sum that a long table carries from page to page. The table keeps rows free for it, with a mark in each; the page writes it
// there when all is set. A table that read the sum itself would be set once more as soon as the sums of its pages are known.
#let carried = state("carried", none)
#let carry-mark(it) = place(top + it.side, [#metadata(it) <carried>])
#let set-carried = tabular.with(style: "italic")
// Wider than any sum or its words: they stand at the side of it where the mark is.
#let far = 400pt
#let write-carried = context {
  let sheet = here().page()
  let marks = query(<carried>)
  // The first of this page, by halving: they stand in the order of pages.
  let (first, end) = (0, marks.len())
  while first < end {
    let middle = calc.div-euclid(first + end, 2)
    if marks.at(middle).location().page() < sheet { first = middle + 1 } else { end = middle }
  }
  for mark in marks.slice(first) {
    let place-of = mark.location()
    if place-of.page() > sheet { break }
    let it = mark.value
    let sum = carried.at(place-of)
    if sum == none or sum == it.unless { continue }
    let (x, y) = place-of.position()
    let body = if it.words == none { text(sum) } else { text(fill: quiet, it.words) }
    place(top + left, dx: if it.side == right { x - far } else { x }, dy: y, box(width: far, align(it.side, set-carried(size: it.size, body))))
  }
}

#let set-table(it, room: none) = {
  let look = looks.at(it.style)
  let columns = it.columns
  let last = columns.len() - 1
  let grouped = it.sections.any(section => "heading" in section)
  let lead = if grouped { 1 } else { 0 }
  // What holds for a whole column is said once for it: a function for each cell would be called for each.
  let across = columns.enumerate().map(((x, column)) => sides(if x == 0 { look.edge } else { look.gap }, if x == last { look.edge } else { look.gap }))
  let is-text = columns.map(column => column.align != "end" and column.width == "rest")
  let set-detail(runs) = block(above: 4.2pt, below: 0pt, text(size: look.size * 0.85, fill: quiet, number-width: auto, set-runs(runs)))
  // Most cells are a few plain words; those with more are dictionaries.
  let set-cell(cell, x, part, hyphens) = {
    let more = type(cell) == dictionary
    if more and "picture" in cell { return set-picture(cell.picture) }
    let body = set-runs(if more { cell.runs } else { cell })
    if is-text.at(x) { body = text(hyphenate: hyphens, number-width: auto, body) }
    if part { body = text(fill: quiet, body) }
    if more { body = { body; set-detail(cell.detail) } }
    if part and columns.at(x).width == "rest" { pad(..sides(11pt, 0pt), body) } else { body }
  }
  // A row is kept whole unless it is taller than a page; only one of many words can be.
  let breaks(row) = measure(
    width: room.width * 0.5, row.cells.enumerate().map(((x, cell)) => set-cell(cell, x, false, true)).join(parbreak()),
  ).height > room.height
  // The unseen cell at the start of a row, where the table is grouped and no earlier one reaches here.
  let held(span) = if not grouped or span == 0 { () } else { (table.cell(rowspan: span, inset: 0pt, stroke: none, []),) }

  let whole = it.sections.map(section => section.rows).flatten()
  // Fewer rows than this stand on one page, most of the time.
  let carries = "carry" in it and whole.len() > 10
  let end-sum = if carries { whole.last().at("carried", default: none) }
  let set-sum(runs) = text(weight: "semibold", set-runs(runs))
  // Room for the running sum, where a page ends or begins in the middle of the table.
  let sum-row(words, unless) = {
    let place = it.carry.column
    let bare = table.cell.with(stroke: none, inset: 0pt)
    let mark(to, words) = carry-mark((side: to, words: words, unless: unless, size: look.size))
    if grouped { (bare([]),) }
    if place > 0 {
      (bare(colspan: place, inset: sides(look.gap, look.gap) + (top: look.pad), mark(side("end"), words)),)
    }
    (bare(inset: across.at(place) + (top: look.pad), mark(right, none)),)
    if place < last { (bare(colspan: last - place, []),) }
  }
  // The first page has nothing brought forward, so its rows begin where that would stand.
  let back-row = (table.cell(colspan: lead + last + 1, stroke: none, inset: 0pt, []),)

  // Lines stand below cells. A table without lines between its rows has one where it ends.
  let line-below(line) = (rest: none, bottom: line)
  let closing = if look.between == none { look.head }
  let strong = if it.style == "bands" { accent } else { ink }
  let bottom = look.pad + 0.5pt
  let set-row(row, banded, ends) = {
    let own = (:)
    if banded { own.insert("fill", look.band) }
    if ends and closing != none { own.insert("stroke", line-below(closing)) }
    if room != none and "long" in row and breaks(row) { own.insert("breakable", true) }
    let (part, hyphens) = ("part" in row, "hyphens" in row)
    let cells = row.cells.enumerate().map(((x, cell)) => set-cell(cell, x, part, hyphens))
    if carries { cells.first() = { carried.update(row.at("carried", default: none)); cells.first() } }
    if own.len() == 0 { cells } else { cells.map(table.cell.with(..own)) }
  }
  let set-section(section, above, ends) = {
    let spans = holds(section)
    let headed = "heading" in section
    let summed = is-summed(section)
    let before = if headed { 1 } else { 0 }
    if headed {
      held(spans.first())
      (table.cell(colspan: last + 1, stroke: line-below(0.4pt + rule), inset: sides(look.edge, 0pt) + (top: look.pad * 2.2, bottom: 4pt), text(
        font: heading-fonts, size: look.size * 1.1, weight: "semibold", number-width: auto, set-runs(section.heading),
      )),)
    }
    for (at, row) in section.rows.enumerate() {
      held(spans.at(at + before))
      set-row(row, look.band != none and calc.even(above + at), ends and not summed and at == section.rows.len() - 1)
    }
    if summed {
      let lines = line-below(if ends and closing != none { closing } else { 0.6pt + strong }) + if look.between == none { (top: 0.4pt + accent) }
      held(spans.last())
      if last > 0 {
        (table.cell(colspan: last, align: end, stroke: lines, text(fill: quiet, number-width: auto, set-runs(section.subtotal.label))),)
      }
      (table.cell(align: right, stroke: lines, set-sum(section.subtotal.value)),)
    }
  }

  let rows = ()
  let above = 0
  for (at, section) in it.sections.enumerate() {
    rows += set-section(section, above, at == it.sections.len() - 1)
    above += section.rows.len()
  }
  let headings = columns.map(column => text(
    size: look.size * 0.9, weight: "semibold", fill: strong, number-width: auto, set-runs(column.heading),
  ))
  let set-columns(widths, heights) = table(
    columns: (0pt,) * lead + widths,
    rows: heights,
    align: (start,) * lead + columns.map(column => cell-side(column.align) + top),
    stroke: line-below(look.between),
    inset: (0pt,) * lead + across.map(each => each + (top: look.pad, bottom: bottom)),
    table.header(
      repeat: true,
      ..held(1),
      ..headings.enumerate().map(((x, heading)) => table.cell(
        inset: across.at(x) + (top: 3pt, bottom: 4pt), stroke: line-below(look.head), heading,
      )),
      ..if carries { sum-row(it.carry.brought, none) },
    ),
    ..if carries { back-row },
    ..rows,
    ..if carries { (table.footer(repeat: true, ..sum-row(it.carry.forward, end-sum)),) },
  )
  let is-fixed = columns.map(column => column.width == "content")
  let own-widths = columns.map(column => if column.width == "rest" { 1fr } else if column.width == "content" { auto } else { column.width * 100% })

  // What is not known of a row is `auto`.
  let set-rows(widths, height-of) = {
    let one = measure(text("0")).height
    let room = if carries { (one + 2 * look.pad,) } else { () }
    let heights = (auto,) + room + room.map(each => -each)
    for section in it.sections {
      if "heading" in section { heights.push(auto) }
      heights += section.rows.map(height-of)
      if is-summed(section) { heights.push(auto) }
    }
    set-columns(widths, heights + room)
    for each in room { v(-each) }
  }

  if carries { carried.update(none) }
  set text(size: look.size, hyphenate: false, number-width: "tabular")
  set table.cell(breakable: false)
  // What is known beforehand is not worth its while for a few rows.
  let is-known = whole.len() > 4 and columns.enumerate().all(((x, column)) => not is-fixed.at(x) or "widest" in column)
  if not is-known { context set-rows(own-widths, _ => auto) } else { layout(room => {
    let gaps = across.map(each => each.left + each.right)
    let widths = columns.enumerate().map(((x, column)) => if is-fixed.at(x) {
      let sums = if x == last { it.sections.filter(is-summed).map(section => set-sum(section.subtotal.value)) } else { () }
      if carries and x == it.carry.column { sums += it.carry.widest.map(set-carried) }
      gaps.at(x) + calc.max(..(headings.at(x), ..column.widest.map(each => text(each)), ..sums).map(each => measure(each).width))
    } else { own-widths.at(x) })
    let parts = widths.filter(each => type(each) == fraction).len()
    let taken = widths.map(each => if type(each) == length { each } else if type(each) == ratio { each * room.width } else { 0pt }).sum()
    let rest = (room.width - taken) / calc.max(parts, 1)
    if parts > 0 and rest < 40pt { return set-rows(own-widths, _ => auto) }
    let spaces = range(columns.len()).filter(x => not is-fixed.at(x)).map(x => {
      (if type(widths.at(x)) == fraction { rest } else { widths.at(x) * room.width }) - gaps.at(x)
    })
    let one-line = look.pad + measure(text("0")).height + bottom
    let two-lines = one-line + 4.2pt + measure(text(size: look.size * 0.85, "0")).height
    let height-of(row) = {
      if "ems" not in row { return auto }
      let indent = if "part" in row { 11pt } else { 0pt }
      for (x, em) in row.ems.enumerate() { if em * look.size + indent > spaces.at(x) { return auto } }
      if row.cells.any(cell => type(cell) == dictionary) { two-lines } else { one-line }
    }
    set-rows(widths, height-of)
  }) }
}

#let set-grid(it) = table(
  columns: it.widths.map(width => width * 1fr),
  align: start + top,
  stroke: none,
  inset: (x, y) => sides(if x == 0 { 0pt } else { 6pt }, 0pt) + (top: 4.5pt, bottom: 5pt),
  ..if it.header {
    (table.header(..it.rows.first().map(cell => text(size: small, weight: "semibold", set-runs(cell))), table.hline(stroke: 0.9pt + ink)),)
  },
  ..it.rows.slice(if it.header { 1 } else { 0 }).map(row => row.map(set-runs) + (table.hline(stroke: 0.4pt + rule),)).flatten(),
)

#let set-signature(it) = block(breakable: false, inset: (top: 34pt), grid(
  columns: (1fr, 74pt), column-gutter: 14pt, row-gutter: 4pt,
  line(length: 100%, stroke: 0.5pt + ink), line(length: 100%, stroke: 0.5pt + ink),
  text(size: smaller, fill: quiet, set-runs(it.label)), text(size: smaller, fill: quiet, set-runs(it.date)),
))

#let set-totals(it) = align(end, block(width: 52%, above: 10pt, {
  set text(hyphenate: false)
  table(
    columns: (1fr, auto),
    align: (start + bottom, right + bottom),
    stroke: none,
    inset: (x, y) => sides(if x == 0 { 0pt } else { 8pt }, 0pt) + (
      top: if it.rows.at(y).emphasis { 6.5pt } else { 4.5pt }, bottom: if it.rows.at(y).emphasis { 6.5pt } else { 4.5pt },
    ),
    ..it.rows.enumerate().map(((index, row)) => {
      let look = if row.emphasis { text.with(size: size * 1.32, weight: "semibold") } else { text.with() }
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

// ---- blocks ----

#let set-heading(it) = {
  let level = it.level - 1
  show heading: set text(
    font: heading-fonts, size: heading-sizes.at(level), weight: "semibold", tracking: (-0.012em, 0pt, 0pt).at(level), hyphenate: false,
  )
  show heading: set block(above: (0pt, 18pt, 14pt).at(level), below: (13pt, 7.5pt, 6.5pt).at(level), sticky: true)
  heading(level: it.level, outlined: true, bookmarked: true, set-runs(it.runs))
}

#let set-paragraph(it) = {
  let look = it.at("look", default: "plain")
  let body = align(side(it.align), par(set-runs(it.runs)))
  if look == "quiet" { text(fill: quiet, size: small, body) }
  else if look == "small" { text(fill: quiet, size: smaller, body) }
  else if look == "lead" { set par(leading: 0.68em); text(size: size * 1.16, body) }
  else { body }
}

// In a hanging composition running text stands in a narrower column, and its headings beside it.
#let hangs = style.composition == "hanging"
#let hang = 26%
#let is-text(it) = it.kind == "paragraph" or it.kind == "list"

// Blocks one after the other, each set by `set-block`; a heading that hangs shares its row with what follows. No function here
// takes the whole list with it: each call of one would look through all of it again.
#let is-table(it) = it != none and it.kind == "table"
#let sequence(blocks, set-block, hanging: false) = {
  let parts = ()
  let is-set = false
  for (at, it) in blocks.enumerate() {
    if is-set { is-set = false; continue }
    let next = blocks.at(at + 1, default: none)
    // What introduces a table stays with it.
    if hanging and it.kind == "heading" and it.level > 1 and next != none and is-text(next) {
      parts.push(block(above: 16pt, sticky: is-table(blocks.at(at + 2, default: none)), grid(
        columns: (hang - 12pt, 1fr), column-gutter: 12pt,
        { show heading: set block(above: 0pt, below: 0pt); set-heading(it) }, set-block(next),
      )))
      is-set = true
    } else {
      let body = set-block(it, hanging: hanging)
      parts.push(if it.kind == "paragraph" and is-table(next) { block(sticky: true, body) } else { body })
    }
  }
  parts.join(parbreak())
}

#let opens-with-heading(blocks) = {
  if blocks.len() == 0 { return false }
  let first = blocks.first()
  first.kind == "heading" or first.kind in ("keep", "section") and opens-with-heading(first.blocks)
}

#let set-block(it, hanging: false) = {
  let nested(blocks) = sequence(blocks, set-block, hanging: hanging)
  let column(body) = if hanging { pad(..sides(hang, 0pt), body) } else { body }
  if it.kind == "paragraph" {
    if hanging and it.align == "start" { column(set-paragraph(it)) } else { set-paragraph(it) }
  } else if it.kind == "heading" {
    set-heading(it)
  } else if it.kind == "list" {
    column(if "start" in it { enum(start: it.start, ..it.items.map(set-runs)) } else { list(..it.items.map(set-runs)) })
  } else if it.kind == "table" {
    if it.sections.any(section => section.rows.any(row => "long" in row)) {
      layout(room => set-table(it, room: (width: room.width, height: 200mm)))
    } else { set-table(it) }
  } else if it.kind == "grid" {
    column(set-grid(it))
  } else if it.kind == "totals" {
    set-totals(it)
  } else if it.kind == "section" {
    landmark(it.block, "start")
    nested(it.blocks)
    landmark(it.block, "end")
  } else if it.kind == "keep" {
    // Space above a block's first heading is lost at the block's edge, so the block takes it over.
    block(breakable: false, width: 100%, above: if opens-with-heading(it.blocks) { 18pt } else { auto }, nested(it.blocks))
  } else if it.kind == "columns" {
    set par(spacing: 0.62em)
    grid(
      columns: it.widths.map(width => width * 1fr), column-gutter: 14pt,
      ..it.columns.map(blocks => sequence(blocks, set-block)),
    )
  } else if it.kind == "picture" {
    // Never wider than the text around it.
    column(align(side(it.align), layout(room => set-picture(it, most: room.width))))
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

#let set-blocks(blocks, hanging: false) = sequence(blocks, set-block, hanging: hanging)

// ---- pages ----

#let margins = paper.page.margins
#let set-footer(blocks) = { line(length: 100%, stroke: 0.4pt + rule); v(-4pt); set-blocks(blocks) }
#let watermark = if "watermark" in paper {
  place(center + horizon, rotate(-52deg, text(
    size: 110pt, weight: "semibold", fill: ink.transparentize(91%), hyphenate: false, paper.watermark,
  )))
}

#set page(
  paper: if paper.page.size == "letter" { "us-letter" } else { paper.page.size },
  flipped: paper.page.at("landscape", default: false),
  margin: sides(margins.left * 1mm, margins.right * 1mm) + (top: margins.top * 1mm + 5mm, bottom: margins.bottom * 1mm),
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
  set page(foreground: { watermark; write-carried })
  // A proof is set between its page breaks: what goes on after one has no header of its own.
  if not paper.at("goesOn", default: false) {
    block(above: 0pt, below: 20pt, move(dy: -8mm, block(width: 100%, set-blocks(paper.header))))
    v(-8mm)
  }
  set-blocks(paper.body, hanging: hangs)
}
