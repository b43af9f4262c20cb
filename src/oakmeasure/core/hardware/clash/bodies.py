"""Everything that lies in a leaf, in one list: joints, panels, fixings, grooves, hollows, hardware, late trims.

A new kind of cut joins the clash map here, and nowhere else.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from oakmeasure.core.base.prisms import Solid, block, rod
from oakmeasure.core.construction.registry import has, module
from oakmeasure.core.document.roles import Role
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.hardware.clash.rules import BodyKind
from oakmeasure.core.hardware.hinges.butt_places import Butts
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Hollow

SAW = 3.0  # kerf of a late trim
SCREW_ROWS = (0.35, 0.65)  # of a butt's width across the edge, its screws in turn: common practice, no source
BITE_SHARE = 2 / 3  # of a screw from its head, that must bite: common practice, no source
MARK_WIDE = 3.0  # of a V line where it meets something


@dataclass(frozen=True, slots=True)
class ClashBody:
    """One thing in the leaf."""

    name: str
    """Its name, as it is shown."""
    kind: BodyKind
    """What kind of body it is."""
    solid: Solid
    """What it takes up, mm."""
    ref: str
    """What it shows, for pointing at it: "part:top rail"; "" for nothing."""
    family: str
    """Things of one family never clash with one another, and are told of as one."""
    is_slow: bool = False
    """Whether it is in the slow leaf of a pair alone."""
    is_active: bool = False
    """Whether it is in the first opening leaf of a pair alone."""


def hardware_things(ctx: Context, borings: Sequence[Boring], butts: Butts | None) -> list[ClashBody]:
    """Return what is cut and driven for hardware.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        borings: What is cut for hardware, in the leaf and in what carries it.
        butts: The leaf's butts; None where it hangs on something else.
    """
    found = []
    for each in borings:
        if each.solid is not None and not each.is_slow:
            kinds = (
                (BodyKind.SCREW, BodyKind.BITE)
                if each.kind.holds_a_screw
                else (BodyKind.GROOVE if each.kind.is_groove else BodyKind.CUT,)
            )
            found += [
                ClashBody(each.name, kind, each.solid, each.ref, each.family, is_active=each.is_active)
                for kind in kinds
            ]
    return found + list(_hinge_screws(ctx, butts))


def slow_leaf_things(borings: Sequence[Boring]) -> list[ClashBody]:
    """Return what is cut in the slow leaf of a pair alone: the lock's keep and the flush bolts.

    Args:
        borings: What is cut for hardware, in the leaf and in what carries it.
    """
    return [
        ClashBody(each.name, BodyKind.CUT, each.solid, each.ref, f"{each.name}, slow leaf", is_slow=True)
        for each in borings
        if each.solid is not None and each.is_slow
    ]


def _hinge_screws(ctx: Context, butts: Butts | None) -> Iterable[ClashBody]:
    """The screws of each butt: spread along it, in two rows in turn, square to the edge."""
    if butts is None:
        return
    screws, depth, across = ctx.leaf.hardware.screws, max(butts.depth.value, 0.0), butts.across.value
    for place in butts.places:
        family = f"butt {place.number}"
        for at in range(screws.count):
            y = place.rect.y0 + (at + 0.5) / screws.count * (place.rect.y1 - place.rect.y0)
            lies, name, ref = across * SCREW_ROWS[at % 2], f"screw {at + 1} of {family}", f"butt:{place.number}"
            for kind, share in ((BodyKind.SCREW, 1.0), (BodyKind.BITE, BITE_SHARE)):
                line = rod((depth, y), (depth + share * screws.length, y), screws.diameter, lies)
                yield ClashBody(name, kind, line, ref, family)


def leaf_things(ctx: Context, build: Build) -> list[ClashBody]:
    """Return what the leaf itself has inside: joints, panels, fixings, grooves, hollows, and its late trims.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    return [
        *_joints(build),
        *_panels(build),
        *fixing_things(build),
        *_hollows(ctx, build),
        *_marks(ctx, build),
        *_trims(ctx, build),
    ]


def fixing_things(build: Build) -> list[ClashBody]:
    """Return the leaf's own nails, pins and screws.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    found = []
    for at, each in enumerate(build.fixings, start=1):
        part = each.ref.partition(":")[2]
        what = each.what.removesuffix("s")
        found.append(ClashBody(f"{what} {at} in the {part}", BodyKind.FIXING, each.solid, each.ref, each.what))
    return found


def _joints(build: Build) -> Iterable[ClashBody]:
    for at, each in enumerate(build.tenons):
        what = "haunch" if each.is_haunch else "tenon"
        words = (
            f"{each.member}'s {what} in the {each.into}"
            if each.member != each.into
            else (f"loose tenon {at + 1} beside {each.member}")
        )
        yield ClashBody(words, BodyKind.JOINT, each.solid, f"part:{each.member}", f"{each.member} {each.into}")


def _panels(build: Build) -> Iterable[ClashBody]:
    for each in build.parts:
        if each.role is Role.PANEL:
            r = each.outline
            yield ClashBody(
                f"{each.name} in its groove",
                BodyKind.PANEL,
                block(r.x0, r.y0, r.x1, r.y1, build.depth_of(each)),
                f"part:{each.name}",
                each.name,
            )


def _hollows(ctx: Context, build: Build) -> Iterable[ClashBody]:
    """Where there is no wood: inside an old hollow leaf, between the rails of a light frame."""
    kind = ctx.leaf.build.kind
    found: Iterable[Hollow] = module(kind, "hollows").hollows(ctx.leaf.build, build) if has(kind, "hollows") else ()
    for each in found:
        r = each.face
        solid = block(r.x0, r.y0, r.x1, r.y1, each.depth)
        yield ClashBody(each.name, BodyKind.BLOCKS if each.has_blocks else BodyKind.HOLLOW, solid, "", "hollow")


def _marks(ctx: Context, build: Build) -> Iterable[ClashBody]:
    """V lines on the face, as deep as they are cut."""
    deep = getattr(ctx.leaf.build, "groove_depth", 0.0)
    for at, each in enumerate(each for each in build.marks if len(each.points) == 2 and not each.hidden):
        yield ClashBody(
            f"V line {at + 1}", BodyKind.LINE, Solid(each.points, (0.0, deep), MARK_WIDE / 2), each.ref, "V lines"
        )


def _trims(ctx: Context, build: Build) -> Iterable[ClashBody]:
    """Where the saw goes when the leaf is trimmed once made: along the edges that lose something."""
    late, w, h = ctx.leaf.late, build.width, build.height
    ends = {
        "foot": ((0.0, 0.0), (w, 0.0)),
        "head": ((0.0, h), (w, h)),
        "hinge": ((0.0, 0.0), (0.0, h)),
        "latch": ((w, 0.0), (w, h)),
    }
    for edge, line in ends.items():
        if getattr(late, edge):
            yield ClashBody(
                f"trim of the {edge}",
                BodyKind.TRIM,
                Solid(line, (0.0, build.thickness), SAW / 2),
                f"figure:late_{edge}",
                f"trim {edge}",
            )
