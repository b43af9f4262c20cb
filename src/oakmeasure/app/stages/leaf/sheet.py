"""What the Leaf sheet asks: the construction, what that asks in turn, and what is trimmed later."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from oakmeasure.core.construction.registry import module
from oakmeasure.core.document.constructions import KINDS, trade_name
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.drawings.views import LeafPage
from oakmeasure.core.edits import job_edits
from oakmeasure.core.forms.fields import Choice, Field, Group

_CONSTRUCTION = Choice(
    "construction",
    "Construction",
    lambda: [(key, trade_name(key)) for key in KINDS],
    lambda job, leaf_id: job.leaf(leaf_id).build.kind,
    job_edits.with_construction,
    "each starts on its own good defaults; Ctrl+Z takes it back",
)

TRIM = (
    Group(
        "Trimmed once it is made",
        (
            Field("late.foot", "off the foot"),
            Field("late.head", "off the head"),
            Field("late.hinge", "off the hinge edge"),
            Field("late.latch", "off the latch edge"),
        ),
        page=LeafPage.WAYS,
        hint="all follows",
    ),
    Group(
        "Left for the site to take",
        (Field("late.allow_side", "each long edge"), Field("late.allow_end", "foot and top, each")),
        page=LeafPage.WAYS,
        hint="at the worst",
    ),
    Group("The leaf in another construction", (_CONSTRUCTION,), page=LeafPage.OTHER),
)

_JOINTS = ("Joints", "Fixings")  # groups that stand on the second page, beside the list of every one


def _on_page(group: Group) -> Group:
    if group.page:
        return group
    return replace(group, page=LeafPage.JOINTS if group.title in _JOINTS else LeafPage.SET_OUT)


def _of(kind: str) -> tuple[Group, ...]:
    """Return what a construction asks, of leaves of that construction alone."""
    groups: tuple[Group, ...] = module(kind, "sheet").GROUPS
    return tuple(replace(each, when=_when(kind, each.when)) for each in groups)


def _when(kind: str, also: Callable[[Leaf], bool] | None) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.build.kind == kind and (also is None or also(leaf))


LEAF = tuple(
    _on_page(each) for each in (Group("", (_CONSTRUCTION,)), *(group for kind in KINDS for group in _of(kind)), *TRIM)
)
