"""What the Leaf sheet asks of a boarded leaf."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.boarded.model import Boarded, BoardEdge, BoardedStyle, BraceEnds, FixedBy, Rip
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.forms.construction_fields import laid_up, number, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Boarded], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Boarded) and test(leaf.build)


GROUPS = (
    Group("", (field_choice("build.style", "Held by", enum_options(BoardedStyle)),)),
    Group(
        "Boards",
        (
            size("board_thickness", "thickness", figure="board", ref="part:board 1"),
            size("cover", "cover", "what one board shows; its tongue is outside it", ref="part:board 2"),
            field_choice("build.edge", "Edges", enum_options(BoardEdge)),
            field_choice("build.rip", "Ripped", enum_options(Rip)),
            size("gap", "gap between", "empty: from the moisture", optional=True, figure="board_gap"),
        ),
    ),
    Group(
        "",
        (size("groove", "groove", "how deep the tongue goes in", ref="figure:board_groove"),),
        when=_where(lambda build: build.edge is BoardEdge.TONGUED),
    ),
    laid_up("boards-laid", "board"),
    Group(
        "Ledges",
        (
            size("ledge_width", "width", ref="part:lower ledge"),
            size("ledge_thickness", "thickness", ref="part:lower ledge"),
            size("ledge_from_foot", "lower one, from the foot", figure="ledge_foot", ref="part:lower ledge"),
            size("ledge_top", "upper one, from the top", ref="part:upper ledge"),
            number("ledges", "how many"),
        ),
    ),
    Group(
        "",
        (
            size(
                "ledge_inset",
                "ends in from the edges",
                "clear of the stop, where that face meets it",
                figure="ledge_in",
            ),
        ),
        when=_where(lambda build: build.style is not BoardedStyle.FRAMED),
    ),
    Group(
        "Frame",
        (
            size("frame_thickness", "thickness", figure="frame", ref="part:hinge stile"),
            size("stile", "stile", ref="part:hinge stile"),
            size("top_rail", "top rail", ref="part:top rail"),
        ),
        when=_where(lambda build: build.style is BoardedStyle.FRAMED),
    ),
    Group(
        "Brace",
        (
            size("brace_width", "width", ref="part:brace"),
            field_choice("build.brace_ends", "Ends", enum_options(BraceEnds)),
        ),
        when=_where(lambda build: build.style is not BoardedStyle.LEDGED),
    ),
    Group(
        "",
        (
            field_choice(
                "build.half_lapped",
                "Where they cross",
                lambda: [(False, "one whole, one in two"), (True, "half-lapped")],
            ),
        ),
        when=_where(lambda build: build.style is BoardedStyle.X),
    ),
    Group(
        "Fixings",
        (
            field_choice("build.fixed_by", "With", enum_options(FixedBy)),
            field_choice("build.double", "Layers", lambda: [(False, "one of boards"), (True, "two of boards")]),
        ),
    ),
)
