"""The veneers of a face: how many, how they lie, how much they give, how they bow."""

from __future__ import annotations

import math

from oakmeasure.core.base.units import Unit, counted
from oakmeasure.core.construction.veneered.model import BackFace, Veneered
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import FIXED, Figure, Origin, fixed, minus, plus
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.laminate import leaf_bow
from oakmeasure.core.timber.resaw import veneers_from

RESAW_KERF = 1.2  # of a narrow band, well set: common practice, no source


def lay_faces(
    ctx: Context, choice: Veneered, fit: Fit, wood: Timber, veneers: tuple[Figure, Figure], edging: Figure
) -> list[Part]:
    """Return both faces, each of veneers side by side: over the edging, or inside it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the veneered leaf.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
        veneers: Thickness of the front and of the back veneer, mm.
        edging: Thickness of the edging, mm.
    """
    f, (front, back) = ctx.figures, veneers
    inset = 0.0 if choice.edging_first else edging.value
    size = (fit.width, fit.height) if choice.edging_first else (f["core_width"], f["core_height"])
    usable = f.total(
        "veneer_usable",
        "veneer, joined width at most",
        plus(ctx.chosen("stock_width", "boards to be resawn, width", choice.stock_width, "build.stock_width")),
        minus(f.given("veneer_shoot", "off each edge of a veneer", SHOOT, FIXED), 2),
    )
    count = f.derived(
        "veneers_across",
        "veneers side by side on a face",
        math.ceil(size[0].value / max(usable.value, 1.0) - 1e-9),
        size[0],
        usable,
        formula="the fewest that reach over the face",
        unit=Unit.COUNT,
    )
    each = f.derived(
        "veneer_width",
        "each veneer, as it shows",
        size[0].value / count.value,
        size[0],
        count,
        formula="width ÷ veneers",
    )
    made = []
    faces = [("", (0.0, front.value))]
    if back.value:
        faces.append((", back", (choice.thickness - back.value, choice.thickness)))
    for ending, depth in faces:
        for at in range(int(count.value)):
            x0 = inset + at * each.value
            rect = Rect(x0, inset, x0 + each.value, fit.height.value - inset)
            thick = depth[1] - depth[0]
            finished = Size(size[1].value, each.value, thick)
            ends = 2 * fit.trim_height.value if choice.edging_first else 0.0  # they go over what is trimmed off
            sides = fit.trim_side.value * ((at == 0) + (at == int(count.value) - 1)) if choice.edging_first else 0.0
            glued = Size(finished.length + ends, finished.width + sides, thick)
            note = "slip-matched in the order that they were sawn" if thick > BOUGHT else "bought veneer"
            made.append(
                PartSpec(
                    f"veneer {at + 1}{ending}",
                    Role.VENEER,
                    rect,
                    (size[1], each),
                    sizes=(finished, glued),
                    species=wood.panel.key,
                    upright=True,
                    depth=depth,
                    at_hand=True,
                    note=note,
                    is_back=bool(ending),
                ).made(ctx)
            )
    return made


def say_yield(ctx: Context, choice: Veneered, fit: Fit) -> None:
    """Add what a board gives, what is needed, how many boards that takes, and what the measured ones may lose.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the veneered leaf.
        fit: Size of the leaf and its gaps, mm.
    """
    f = ctx.figures
    sanding = f.given("sanding", "sanded off a veneer", choice.sanding, fixed("build.sanding"))
    wander = f.given(
        "wander", "saw wanders, thickest to thinnest", choice.thickness_spread, fixed("build.thickness_spread")
    )
    raw = f.total("veneer_raw", "veneer, as it is sawn", plus(f["veneer"]), plus(sanding), plus(wander))
    stock = ctx.chosen("stock", "boards to be resawn, thickness", choice.stock, "build.stock")
    kerf = f.given("resaw_kerf", "kerf of the resaw", RESAW_KERF, fixed(source="narrow band, well set"))
    got = f.derived(
        "veneers_each",
        "veneers from one board",
        veneers_from(stock=stock.value, raw=raw.value, kerf=kerf.value),
        stock,
        raw,
        kerf,
        formula="n·raw + (n − 1)·kerf ≤ thickness",
        unit=Unit.COUNT,
    )
    faces = 2 if choice.back is BackFace.SAME else 1
    if "veneers_across" in f:
        needed = f.derived(
            "veneers_needed",
            "veneers, together",
            faces * f["veneers_across"].value,
            f["veneers_across"],
            formula=counted(faces, "face"),
            unit=Unit.COUNT,
        )
        boards = math.ceil(needed.value / got.value) if got.value else 0
        f.derived(
            "veneer_boards",
            "boards to resaw",
            boards,
            needed,
            got,
            formula="veneers ÷ veneers from one board, whole boards",
            unit=Unit.COUNT,
        )
    if choice.thin is None:
        return
    thin = f.given("veneer_thin", "thinnest veneer, measured", choice.thin, Origin(edit="build.thin"))
    thick = f.given(
        "veneer_thick",
        "thickest veneer, measured",
        max(choice.thick or choice.thin, choice.thin),
        Origin(edit="build.thick"),
    )
    f.total("veneer_spread", "spread of the veneers", plus(thick), minus(thin))
    f.total("veneer_may_lose", "the thinnest may lose", plus(thin), minus(f["veneer"]))


def say_bow(ctx: Context, choice: Veneered, wood: Timber, front: Figure, back: Figure, across: Figure) -> None:
    """Add how far unlike faces bow the leaf: across its width, and up its height.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the veneered leaf.
        wood: Species, and moisture as made, at the driest and at the wettest.
        front: Thickness of the front veneer, mm.
        back: Thickness of the back veneer, mm.
        across: Width that lies across the veneers' grain, mm.
    """
    f = ctx.figures
    points = max(abs(air.value - wood.made.value) for air in (wood.wet, wood.dry))
    most = f.derived(
        "veneer_points",
        "points of moisture, at the most",
        points,
        wood.made,
        wood.wet,
        wood.dry,
        formula="the further of the two from the making",
        unit=Unit.PERCENT,
    )
    found = leaf_bow(
        size=(across.value, f["leaf_height"].value),
        core=f["core"].value,
        veneers=(front.value, back.value),
        points=points,
        coefficient=wood.panel_coefficient.value,
    )
    f.derived(
        "veneer_bow",
        "bow from unlike faces",
        found,
        f["core"],
        front,
        back,
        most,
        across,
        wood.panel_coefficient,
        formula="curvature of the laminate × length² ÷ 8",
        source="laminated strips; Timoshenko 1925 for two",
    )


BOUGHT = 0.6  # thickness of bought veneer, mm
SHOOT = 2.0  # off each edge of a veneer before it is joined to the next: common practice, no source
