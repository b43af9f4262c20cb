"""What the readings of a survey say of each other, as checks; whatever the shape of the opening."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, Provenance
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.adjust import Adjustment, Judged, Status

RULE = "normalised residual over 3"


def assumed(ctx: Context, adj: Adjustment[Any]) -> list[Figure]:
    """Add what an adjustment took for granted, as figures that say so.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        adj: The adjusted readings with their residuals.
    """
    return [
        ctx.figures.given(
            figure_name("assumed_" + label.replace(" ", "_")),
            label,
            0.0,
            Origin(source="no reading says otherwise", state=Provenance.ASSUMED),
        )
        for label in adj.assumptions
    ]


def say_contradictory(ctx: Context) -> None:
    """Say that no opening has these readings.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    ctx.stop(
        "survey-contradictory",
        "No opening has these readings",
        "Together they close to no shape, so nothing below can be trusted.",
        Remedy("Take widths, heights and diagonals again"),
        grounds=Grounds("clear_width"),
    )


def judge_readings(ctx: Context, adj: Adjustment[Any], labels: Mapping[Any, str], *, prefix: str = "") -> None:
    """Say which readings are doubted, which nothing checks, or that they agree.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        adj: The adjusted readings with their residuals.
        labels: What each reading is called.
        prefix: Of its figure and of its place on the drawing.
    """
    said = False
    for key, judged in adj.readings.items():
        if judged.status in (Status.SET_ASIDE, Status.BOWED):
            said = True
            _say_aside(ctx, prefix + key, labels[key], judged)
    if adj.undecided:
        said = True
        _say_undecided(ctx, adj, labels, prefix)
    unchecked = [
        key
        for key, judged in adj.readings.items()
        if judged.least_blunder == float("inf") and not str(key).startswith(("lean", "sill", "head", "floor"))
    ]
    width, sigma = ctx.figures["clear_width"], ctx.figures["clear_width_uncertainty"]
    if unchecked:
        helps = [] if adj.assumptions or not ctx.next_reading else [Remedy(f"Most would help: {ctx.next_reading}")]
        ctx.warn(
            "survey-unchecked",
            "A misread would not show",
            f"Nothing checks the {', '.join(labels[key] for key in unchecked)}. The clear width is known to ± "
            f"{ctx.fmt(sigma)}.",
            Remedy("Read both diagonals, and widths and heights at three places")
            if not prefix
            else Remedy("Read one more diagonal than the shape needs"),
            *helps,
            grounds=Grounds(
                where=f"reading:{prefix}{unchecked[0]}",
                rule="a reading is checked when others would contradict a misread",
            ),
        )
    elif not said:
        least = max(judged.least_blunder for judged in adj.readings.values() if judged.least_blunder < float("inf"))
        ctx.fine(
            "survey-agrees",
            "The readings agree",
            f"{len(adj.readings)} readings; any misread of {ctx.fmt(least)} or more would show. "
            f"The clear width is {ctx.fmt(width)} ± {ctx.fmt(sigma)}.",
            *([Remedy(f"To be surer, {ctx.next_reading}")] if ctx.next_reading else []),
            grounds=Grounds("clear_width", rule="normalised residual under 3"),
        )


def _say_aside(ctx: Context, key: str, label: str, judged: Judged) -> None:
    numbers = (
        f"The {label} reads {ctx.fmt(judged.value)}; the other readings make it {ctx.fmt(judged.adjusted)}, "
        f"{judged.normalised:.1f} times the spread that is usual."
    )
    if judged.status is Status.BOWED:
        way = "in" if judged.miss < 0 else "out"
        code, title = f"bowed-{key}", f"A side bows {way}, or a middle reading is wrong"
        numbers += " Taken as a bow until a second reading says otherwise."
    else:
        code, title = f"misread-{key}", f"Misread: {label}"
        numbers += " It is set aside."
    ctx.warn(
        code, title, numbers, Remedy("Take it again"), grounds=Grounds(f"reading_{key}", f"reading:{key}", rule=RULE)
    )


def _say_undecided(ctx: Context, adj: Adjustment[Any], labels: Mapping[Any, str], prefix: str) -> None:
    names = [labels[key] for key in adj.undecided]
    listed = ", ".join(names[:-1]) + " and " + names[-1]
    size = max(abs(adj.readings[key].blunder) for key in adj.undecided)
    if len(names) <= 3:
        advice = f"Take {listed} again"
    elif prefix:
        advice = "Take one more diagonal"
    else:
        advice = "Take both diagonals again, then the widths"
    if not prefix and not any(key.is_plumb for key in adj.readings):
        advice += ", or read the lean of both sides"
    first = adj.undecided[0]
    ctx.warn(
        "survey-undecided",
        "Readings disagree; which one is wrong cannot be told",
        f"One of {listed} is out by about {ctx.fmt(size)}; each explains it equally well. All are kept for now.",
        Remedy(advice),
        grounds=Grounds(f"reading_{prefix}{first}", f"reading:{prefix}{first}", rule=RULE),
    )
