"""What the Leaf sheet asks of a slab."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.forms.construction_fields import laid_up, number, size
from oakmeasure.core.forms.fields import Group, enum_options, field_choice


def _where(test: Callable[[Slab], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Slab) and test(leaf.build)


GROUPS = (
    Group(
        "Slab",
        (
            size("thickness", "thickness"),
            size("strip", "strips, at most", ref="part:strip 1"),
            size("shoot", "shot off each joint"),
        ),
    ),
    laid_up("strips-laid", "strip"),
    Group(
        "Joints",
        (
            field_choice("build.joint", "Joined by", enum_options(SlabJoint)),
            field_choice("build.glue", "Glue", enum_options(SlabGlue)),
            number("group_size", "glued up at a time", figure="glue_stages"),
        ),
    ),
    Group(
        "Joints",
        (size("joint_spacing", "about every", figure="tenon_every"),),
        when=_where(lambda build: build.joint is not SlabJoint.GLUED),
    ),
    Group("Kept flat by", (field_choice("build.stiffener", "With", enum_options(Stiffener)),)),
    Group(
        "",
        (
            number("stiffeners", "how many"),
            size("stiffener_width", "width"),
            size("stiffener_thickness", "thickness"),
            size("stiffener_in", "ends in from the edges"),
            size("stiffener_end", "centre from foot and top"),
        ),
        when=_where(lambda build: build.stiffener is not Stiffener.NONE),
    ),
    Group("", (size("dado", "let in"),), when=_where(lambda build: build.stiffener is Stiffener.DADOES)),
)
