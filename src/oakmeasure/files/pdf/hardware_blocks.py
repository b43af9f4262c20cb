"""Hardware on the bench sheet: where hinges, cups or hangers go, and what a leaf that slides is held by."""

from __future__ import annotations

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer, Table, TableStyle

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.sliding.hangers import Gear
from oakmeasure.core.solution import LeafSolution
from oakmeasure.files.pdf.page_parts import COLUMN, HEADING, SMALL, TIGHT, pairs, style, words


def hardware_block(leaf: LeafSolution, show: Show) -> list[Flowable]:
    """Return what the leaf hangs on, as far as it is known: butts, cups, or gear.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.weights is None:
        return []
    if leaf.butts is not None:
        return _butts(leaf, show)
    if leaf.cups is not None:
        return _cups(leaf, show)
    return _gear(leaf, leaf.gear, show) if leaf.gear is not None else []


def _pairs_of(leaf: LeafSolution, show: Show, names: tuple[tuple[str, str], ...]) -> Flowable:
    f = leaf.figures
    rows = [
        (label, show.value(f[figure_name(name)].value, f[figure_name(name)].unit))
        for label, name in names
        if figure_name(name) in f
    ]
    return pairs(rows, COLUMN * mm)


def _butts(leaf: LeafSolution, show: Show) -> list[Flowable]:
    names = (
        ("let in, leaf and lining each", "butt_depth"),
        ("across the edge", "butt_across"),
        ("leaf, without hardware", "mass"),
        ("pull on the top butt", "top_hinge_pull"),
    )
    return [
        words(f"Hinges: {leaf.leaf.hardware.butt.name}", HEADING),
        _hinge_table(leaf, show),
        _pairs_of(leaf, show, names),
        Spacer(0, 5),
    ]


def _hinge_table(leaf: LeafSolution, show: Show) -> Table:
    head = ("butt", "down from leaf's top", "down from the head, on the hinge jamb")
    rows = [[words(each, SMALL) for each in head]]
    for place in leaf.butts.places if leaf.butts else ():
        leaf_span = f"{show.length(place.top.value)} to {show.length(place.bottom.value)}"
        jamb_span = f"{show.length(place.jamb_top.value)} to {show.length(place.jamb_bottom.value)}"
        rows.append(
            [words(str(place.number)), words(leaf_span, style(8.2, bold=True)), words(jamb_span, style(8.2, bold=True))]
        )
    return _table(rows, (0.12, 0.44, 0.44))


def _table(rows: list[list[Flowable]], shares: tuple[float, ...]) -> Table:
    table = Table(rows, colWidths=[COLUMN * mm * share for share in shares])
    table.setStyle(TableStyle([*TIGHT, ("LINEBELOW", (0, 0), (-1, 0), 0.3, HexColor("#888888"))]))
    return table


def _cups(leaf: LeafSolution, show: Show) -> list[Flowable]:
    rows = [
        [
            words("cup", SMALL),
            words("middle, down from leaf's top", SMALL),
            words("plate, down from the opening's edge", SMALL),
        ]
    ]
    bold = style(8.2, bold=True)
    for place in leaf.cups.places if leaf.cups else ():
        rows.append(
            [
                words(str(place.number)),
                words(show.length(place.top.value), bold),
                words(show.length(place.plate.value), bold),
            ]
        )
    names = (
        ("leaf's edge to the cup", "cup_boring"),
        ("leaf's edge to its middle", "cup_centre"),
        ("cup, depth", "cup_depth"),
        ("plate's holes from the front edge", "plate_back"),
        ("leaf, without hardware", "mass"),
    )
    return [
        words(f"Cup hinges: {leaf.leaf.hardware.cup.hinge.name}", HEADING),
        _table(rows, (0.12, 0.44, 0.44)),
        _pairs_of(leaf, show, names),
        Spacer(0, 5),
    ]


def _gear(leaf: LeafSolution, gear: Gear, show: Show) -> list[Flowable]:
    track = leaf.leaf.slide.track_set
    names = (
        ("hangers from the leaf's edges", "bolt_in"),
        ("upper bolt, from the leaf's top", "bolt_down"),
        ("track, length", "track_needed"),
        ("its holes over the finished floor", "track_line"),
        ("stop's face, from the track's hinge end", "stop_open"),
        ("backing board missing", "backing"),
        ("track's screws", "stack_screw"),
        ("groove for the guide, deep", "guide_depth"),
        ("leaf, without hardware", "mass"),
        ("proof load first", "proof_load"),
    )
    word = "wheels" if gear.kind is HangerKind.FLOOR else "hangers"
    out: list[Flowable] = [
        words(f"Two {word}: {track.name if track else 'no set chosen'}", HEADING),
        _pairs_of(leaf, show, names),
    ]
    if gear.holes:
        places = [show.length(each, sign=False) for each in gear.holes]
        missed = [at for at, held in enumerate(gear.held) if not held]
        text = f"Track's holes, from its hinge end: {', '.join(places)}."
        text += f" No stud behind: {', '.join(places[at] for at in missed)}." if missed else ""
        out.append(words(text, SMALL))
    if gear.shims:
        out.append(words(f"Shims at them: {', '.join(show.length(each.value) for each in gear.shims)}.", SMALL))
    return [*out, Spacer(0, 5)]
