"""What is only assumed of a leaf, and what hangs on it."""

from __future__ import annotations

from oakmeasure.core.document.hinges import is_chosen
from oakmeasure.core.figures.check import Grounds, Remedy, Stage
from oakmeasure.core.figures.figure import Figure, Figures, Provenance
from oakmeasure.core.figures.names import FigureName
from oakmeasure.core.leaf.leaf_context import Context

# What a joiner cuts to; named when something that they hang on is only assumed.
KEY_FIGURES: tuple[FigureName, ...] = (
    "leaf_width",
    "leaf_height",
    "rail_length",
    "panel_width",
    "butt_depth",
    "butt_across",
    "least_bevel",
)

CHOSEN = ("timber.species", "build.material")  # what is chosen, not measured: its own check says where


def judge_assumed(ctx: Context, next_reading: str) -> None:
    """Say, for the opening and for the hardware, what is only assumed and what hangs on it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        next_reading: In words: what would make the clear width surest; "" for nothing.
    """
    for stage in (Stage.MEASURE, Stage.HARDWARE):
        assumed = [
            each for each in still_to_measure(ctx.figures) if each.name.startswith("butt_") is (stage is Stage.HARDWARE)
        ]
        if not assumed or (stage is Stage.HARDWARE and not is_chosen(ctx.leaf.hardware.butt)):
            continue  # of butts that nobody chose nothing is assumed: that they are not chosen is said
        labels = {each.label for each in assumed}
        hanging = {each.label: each for each in ctx.figures if each.rests_on & labels and each.label not in labels}
        if not hanging:
            continue
        named = [
            ctx.figures[name].label
            for name in KEY_FIGURES
            if name in ctx.figures and ctx.figures[name].label in hanging
        ]
        more = len(hanging) - len(named)
        listed = ", ".join(named) + (f" and {more} more" if more > 0 else "") if named else f"{more} figures"
        first = assumed[0]
        remedy = Remedy("Measure it")
        if stage is Stage.MEASURE and next_reading:
            remedy = Remedy(f"Most would help: {next_reading}")
        where = f"reading:{first.edit.rpartition('.')[2]}" if first.edit else ""
        ctx.at(stage).warn(
            f"assumed-{stage.lower()}",
            "Assumed, not measured",
            f"{'; '.join(each.label for each in assumed)}. On it hang: {listed}.",
            remedy,
            grounds=Grounds(first.name, where, rule="nothing is cut to an assumed figure"),
        )


def still_to_measure(figures: Figures) -> list[Figure]:
    """Return the inputs that are only assumed.

    Args:
        figures: The leaf's figures.
    """
    return [
        each
        for each in figures
        if each.state is Provenance.ASSUMED
        and each.rests_on == {each.label}
        and len(each.rows) == 1
        and each.edit not in CHOSEN
    ]
