"""What the Leaf sheet asks of a light face frame."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill, LightGlue, LightJoint
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.forms.construction_fields import sheet_options, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Light], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Light) and test(leaf.build)


GROUPS = (
    Group(
        "Frame",
        (
            size("frame_thickness", "thickness", figure="thickness"),
            size("stile", "stile", ref="part:hinge stile"),
            size("top_rail", "top rail", ref="part:top rail"),
            size(
                "middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"
            ),
            size("lock_height", "lock above the floor"),
            size("bottom_rail", "bottom rail", ref="part:bottom rail"),
        ),
    ),
    Group(
        "Filling",
        (field_choice("build.fill", "Filled by", enum_options(LightFill)), size("fill_thickness", "thickness")),
    ),
    Group(
        "", (size("board", "boards, at most", figure="board_most"),), when=_where(lambda build: build.fill.is_boards)
    ),
    Group(
        "", (field_choice("build.sheet", "Sheet", sheet_options),), when=_where(lambda build: not build.fill.is_boards)
    ),
    Group("", (size("rebate", "rebate"),), when=_where(lambda build: build.fill.is_in_rebate)),
    Group("Brace", (field_choice("build.brace", "Brace", enum_options(LightBrace)),)),
    Group("", (size("brace_width", "width"),), when=_where(lambda build: build.brace is not LightBrace.NONE)),
    Group(
        "Joints",
        (
            field_choice("build.joint", "Joined by", enum_options(LightJoint)),
            field_choice("build.glue", "Glue", enum_options(LightGlue)),
        ),
    ),
)
