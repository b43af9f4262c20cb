"""The sheet of keep-out zones: one page to lie beside the leaf before anything is nailed, pinned or screwed."""

from __future__ import annotations

import io
from datetime import date

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import BaseDocTemplate, Flowable, Frame, KeepInFrame, PageTemplate, Spacer

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Job
from oakmeasure.core.drawings.hardware.clash_view import zones_view
from oakmeasure.core.hardware.clash.zones import MARGIN as ROUND_IT
from oakmeasure.core.hardware.clash.zones import zones
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.drawing import Pen, register_fonts, scale_for
from oakmeasure.files.pdf.page_parts import HEAD, HEADING, MARGIN, SMALL, PageHead, grid, words
from oakmeasure.language import SPOKEN

SHARE = 0.66  # of the page, for the drawing


def zone_sheet_pdf(job: Job, leaf: LeafSolution, *, on: date | None = None) -> bytes:
    """Return the keep-out zones of one leaf as a PDF of one page, drawn to a stated scale and listed.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        on: The day that stands on the paper; None for none.
    """
    register_fonts()
    show, stream = Show(job.unit, speech=SPOKEN), io.BytesIO()
    width, height = A4[0] / mm, A4[1] / mm
    drawing = zones_view(leaf, show)
    tall = (height - 2 * MARGIN - HEAD) * SHARE
    scale = scale_for(drawing, width=width - 2 * MARGIN, height=tall)
    head = PageHead(job, leaf, f"drawing 1 : {scale}", on or date.today(), show)

    def page(canvas: Canvas, _doc: object) -> None:
        head.draw(canvas, "keep-out zones")
        wide = drawing.bounds.width / scale
        Pen(canvas, drawing, left=(width - wide) / 2, top=height - MARGIN - HEAD - 2, scale=scale).draw()

    low = (height - 2 * MARGIN - HEAD) * (1 - SHARE) - 6
    frame = Frame(MARGIN * mm, MARGIN * mm, (width - 2 * MARGIN) * mm, low * mm, 0, 0, 0, 0)
    document = BaseDocTemplate(
        stream,
        pagesize=A4,
        title=f"{leaf.leaf.name}, keep-out zones",
        author="Oak Measure",
        invariant=1,
        pageTemplates=[PageTemplate("zones", [frame], onPage=page)],
    )
    document.build([KeepInFrame((width - 2 * MARGIN) * mm, low * mm, _story(leaf, show), mode="shrink")])
    return stream.getvalue()


def _story(leaf: LeafSolution, show: Show) -> list[Flowable]:
    if leaf.body is None:
        return [words("No leaf fits this opening; nothing is to be kept free.", HEADING)]
    rows = [
        [
            words(each, SMALL)
            for each in (
                "no.",
                "keep free",
                "down from top",
                "to",
                "from hinge edge",
                "to",
                "deep from",
                "to",
                "open at",
            )
        ]
    ]
    found = zones(leaf.clashes, leaf.body)
    for number, zone in enumerate(found, start=1):
        lengths = (zone.from_top, zone.to, zone.from_hinge, zone.in_to, zone.deep_from, zone.deep_to)
        rows.append(
            [
                words(str(number)),
                words(zone.name),
                *(words(show.length(each)) for each in lengths),
                words(zone.in_words(), SMALL),
            ]
        )
    told = [
        words(f"{clash.one.name} and {clash.other.name}: {clash.rule.words}.", SMALL) for clash in leaf.clashes.clashes
    ]
    return [
        words("Nothing is nailed, pinned or screwed in these places", HEADING),
        words(
            f"Each has {show.length(ROUND_IT)} of room round it. Depths are from the opening face. A nail beside a "
            "zone that slants may still reach into it: mark the zone on both faces first.",
            SMALL,
        ),
        Spacer(0, 4),
        grid(rows, (0.05, 0.2, 0.11, 0.1, 0.13, 0.1, 0.1, 0.09, 0.12)),
        Spacer(0, 6),
        *([words("Still clashes", HEADING), *told] if told else []),
    ]
