"""The panels of a frame: cut to the grooves as they came out, raised; the glass last."""

from __future__ import annotations

from oakmeasure.core.construction.framed.model import Framed, Infill
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import Axis, FeatureKind
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, explained, sizes_to

# Whose working explains what a panel is cut to
PANEL_FIGURES = tuple(
    name
    for row in ("", "_lower", "_upper", "_middle", "_top", "_bottom", "_whole")
    for name in (f"panel_width{row}", f"{row[1:]}_panel_length")
)


def cut_later(m: StepBuilder, choice: Framed) -> dict[str, tuple[Axis, ...]]:
    """Return which parts wait with their sizes: panels of solid wood, for the grooves as they came out.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the frame.
    """
    solid = {part.name for part in m.solid}
    return {part.name: (Axis.WIDTH, Axis.LENGTH) for part in m.parts(Role.PANEL) if part.name in solid}


def cut_panels(m: StepBuilder, choice: Framed, panels: tuple[str, ...]) -> None:
    """Add how panels are cut to the grooves, and raised.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the frame.
        panels: Names of all panels.
    """
    solid = tuple(part.name for part in m.parts(Role.PANEL) if part.species != "glass")
    if not solid:
        return
    rows = {row.infill for row in choice.rows}
    needs = ("groove:frame", *m.loose(panels))
    cut = (*m.brought_now(solid), *m.cuts(solid, FeatureKind.SHAPE))
    m.add(
        "cut:panels",
        "Cut the panels to the grooves as they are" if cut else "Try the panels in the grooves as they are",
        Trade.SAW if cut else Trade.FIT,
        parts=solid,
        needs=needs,
        bucket=Bucket.PARTS,
        share=0.6,
        settings=(
            *explained(m, sizes_to(cut, width="wide", length="long"), *PANEL_FIGURES),
            *m.set_to(clearance="panel_room"),
        ),
        hold=WorkpieceSetup.of(SideUp.OPENING, solid),
        cautions=("saw",) if cut else (),
        about=About.TIMBER,
        check=StepCheck("room on both sides for the wettest week"),
        how="best face out, heart side of boards in turn" if cut else "show face out",
        changes=cut,
    )
    if Infill.RAISED in rows:
        m.add(
            "field:panels",
            "Raise the panels: ends first, then sides",
            Trade.ROUT,
            parts=solid,
            needs=("cut:panels",),
            bucket=Bucket.PARTS,
            share=0.8,
            settings=(Setting("fielding", choice.fielding), Setting("edge left", m.build.groove_width)),
            practice="an off-cut across and along the grain",
            hold=WorkpieceSetup.of(SideUp.OPENING, solid),
            cautions=("router", "dust"),
            check=StepCheck("edge slides into a groove off-cut"),
            how="in three passes",
            changes=m.cuts(solid, FeatureKind.FIELD),
        )


def last_steps(m: StepBuilder) -> None:
    """Add the glass: measured in its rebate, put in when the finish is dry.

    Args:
        m: Where the operations are added.
    """
    panes = tuple(part.name for part in m.parts(Role.PANEL, made=False) if part.species == "glass")
    if panes:
        m.add(
            "glaze",
            "Set the glass on its blocks, beads on",
            Trade.SITE,
            parts=panes,
            needs=("finish:last",),
            bucket=Bucket.FINISH,
            share=0.5,
            settings=m.set_to(clearance="glass_clearance"),
            cautions=("glass",),
            hold=WorkpieceSetup(SideUp.CLOSING),
            check=StepCheck("air all round, blocks under the lower edge"),
            changes=m.joined(panes),
        )
        m.steps.need("glaze", "measure:glass")
        m.add(
            "measure:glass",
            "Measure for the glass in its rebates",
            Trade.MEASURE,
            parts=panes,
            needs=(m.whole,),
            early=True,
            bucket=Bucket.FINISH,
            share=0.1,
            cautions=("glass",),
            check=StepCheck("both widths, both heights, both diagonals of each"),
            why="it takes a week to come",
            later="a finished leaf that waits for its glass",
            changes=m.taken((part for part in m.build.parts if part.name in panes), "finished"),
        )
