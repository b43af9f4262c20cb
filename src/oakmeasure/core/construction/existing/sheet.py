"""What the Leaf sheet asks of a leaf that exists."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.existing.model import EdgeShape, Existing, Inside, ReduceBy, Splice
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.species import species, species_keys
from oakmeasure.core.forms.construction_fields import number, sheet_options, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Existing], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Existing) and test(leaf.build)


GROUPS = (
    Group(
        "Read first",
        (
            field_choice("build.inside", "Inside", enum_options(Inside), "knock, weigh it, look at its edges"),
            field_choice("build.edge_shape", "Long edges", enum_options(EdgeShape)),
            field_choice(
                "build.material",
                "Made of",
                lambda: [
                    *sorted(((key, species(key).name) for key in species_keys()), key=lambda each: each[1]),
                    *sheet_options(),
                ],
                none="not said yet",
            ),
        ),
    ),
    Group(
        "As it lies on the bench",
        (
            size("width", "width", figure="old_width"),
            size("height", "height", figure="old_height"),
            size("thickness", "thickness"),
        ),
    ),
    Group("", (size("edge_by", "edge, in by"),), when=_where(lambda build: build.edge_shape is not EdgeShape.SQUARE)),
    Group(
        "Inside it",
        (size("face", "face, thickness", figure="face"), size("solid", "solid long edge"), size("rail", "solid end")),
        when=_where(lambda build: build.inside not in (Inside.SOLID, Inside.PANELLED)),
    ),
    Group(
        "Its frame",
        (
            size("stile", "stile"),
            size("tenon", "tenon, into it"),
            field_choice("build.through", "Tenons", lambda: [(False, "blind"), (True, "through")]),
            number("panels", "panels across"),
            number("panels_above", "in the upper row", optional=True),
            size("muntin", "muntin"),
            size("top_rail", "top rail", figure="top_rail_old"),
            size("middle_rail", "middle rail", "empty: none", optional=True),
            size("middle_up", "its centre, up the leaf", figure="middle_up"),
            size("bottom_rail", "bottom rail", figure="bottom_rail_old"),
            field_choice(
                "build.reduce_by", "Narrower by", enum_options(ReduceBy), "the ways stand side by side under Ways"
            ),
        ),
        when=_where(lambda build: build.inside is Inside.PANELLED),
    ),
    Group(
        "Made longer",
        (
            field_choice("build.splice", "By", enum_options(Splice)),
            field_choice("build.at_foot", "At", lambda: [(True, "its foot"), (False, "its head")]),
            size("splice_lap", "halved over"),
            size("splice_stagger", "staggered by"),
        ),
    ),
    Group(
        "Grooves and recess",
        (
            number("grooves", "V lines", "0: none"),
            size("band", "band to the first"),
            size("groove_depth", "V line, deep"),
            size("recess_depth", "flush pull, deep", "empty: none", optional=True),
            size("recess_step", "one pass"),
        ),
    ),
)
