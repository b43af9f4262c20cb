"""What the Leaf sheet asks of a leaf layered from sheet."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping, Pieced, PieceJoint
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.forms.construction_fields import sheet_options, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Layered], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Layered) and test(leaf.build)


GROUPS = (
    Group(
        "Layers",
        (
            field_choice("build.style", "Style", enum_options(LayerStyle)),
            field_choice("build.sheet", "Sheet", sheet_options),
            size("core", "core, thickness"),
            size("face", "each face layer", figure="face"),
        ),
    ),
    Group(
        "Stiles and rails, on both faces",
        (
            size("stile", "stile", ref="part:hinge stile"),
            size("top_rail", "top rail", ref="part:top rail"),
            size(
                "middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"
            ),
            size("lock_height", "lock above the floor"),
            size("bottom_rail", "bottom rail", ref="part:bottom rail"),
            size("muntin", "muntin", "empty: none", optional=True),
        ),
        when=_where(lambda build: build.style is LayerStyle.FRAME),
    ),
    Group("Edges", (field_choice("build.lipping", "Lipping", enum_options(Lipping)),)),
    Group(
        "",
        (size("lipping_depth", "in from the edge", "the first stile stands in by it", ref="part:hinge lipping"),),
        when=_where(lambda build: build.lipping is not Lipping.NONE),
    ),
    Group("", (size("tongue", "tongue of the T"),), when=_where(lambda build: build.lipping is Lipping.T)),
    Group(
        "Trim and pieces",
        (
            size("trim", "trim, width", "mitred round each field; empty: none", optional=True),
            size("trim_thickness", "trim, thickness"),
            field_choice("build.pieced", "In two", enum_options(Pieced), "for painted work"),
            field_choice("build.piece_joint", "Joined by", enum_options(PieceJoint)),
        ),
        when=_where(lambda build: build.style is LayerStyle.FRAME),
    ),
    Group("Fixings", (size("pin_every", "pins about every"),)),
)
