"""What the Leaf sheet asks of a veneered leaf."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.framed.model import TenonKind
from oakmeasure.core.construction.veneered.model import BackFace, Veneered, VeneerForm
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.forms.construction_fields import sheet_options, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Veneered], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Veneered) and test(leaf.build)


GROUPS = (
    Group(
        "Leaf",
        (
            field_choice("build.form", "Form", enum_options(VeneerForm)),
            size("thickness", "thickness"),
            field_choice("build.core", "Core", sheet_options),
        ),
    ),
    Group(
        "Veneers",
        (
            size("veneer", "finished"),
            size("sanding", "sanded off"),
            size("thickness_spread", "saw wanders", figure="wander"),
            size("stock", "boards, thickness"),
            size("stock_width", "boards, width"),
            field_choice("build.back", "On the back", enum_options(BackFace)),
        ),
    ),
    Group(
        "As they were sawn",
        (
            size("thin", "thinnest", optional=True, figure="veneer_thin"),
            size("thick", "thickest", optional=True, figure="veneer_thick"),
        ),
        hint="empty: not yet",
    ),
    Group(
        "Edging",
        (
            size("moulding", "moulding, deep"),
            size("sapwood", "sapwood on its board"),
            size("edging", "edging", "empty: the moulding and a little behind it", optional=True),
            field_choice("build.edging_first", "Edged", lambda: [(True, "before the veneer"), (False, "after it")]),
        ),
    ),
    Group(
        "Frame",
        (
            size("stile", "stile"),
            size("top_rail", "top rail"),
            size("middle_rail", "middle rail", optional=True),
            size("lock_height", "lock above the floor"),
            size("bottom_rail", "bottom rail"),
            size("muntin", "muntin", optional=True),
            size("arch_rise", "top rail arched by", optional=True, figure="arch"),
            field_choice("build.tenon", "Tenons", enum_options(TenonKind)),
        ),
        when=_where(lambda build: build.form is VeneerForm.FRAMED),
    ),
)
