"""A stage of a glue-up: what closes in it, in which order, where the clamps lie, and its minutes against the glue's."""

from __future__ import annotations

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import BOLD, OAK, PENCIL, Drawing, Grain, Layer, Lettering, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.making.glue import CLAMP_MINUTES, SQUARE_MINUTES, GluePlan, GlueStage, TaskPlan
from oakmeasure.core.making.glue_tasks import Line
from oakmeasure.core.solution import LeafSolution

TALL = 620.0
BAR_X = 500.0
BAR_WIDE = 54.0
WORDS_X = 574.0
WRAP = 40
LINE = 24.0
JAW = 16.0


def glue_view(leaf: LeafSolution, number: int, show: Show) -> Drawing:
    """Return the drawing of a stage, counted over all glue-ups from 1; why there is none where nothing is glued.

    Args:
        leaf: The leaf, worked out to the end.
        number: Its number, from 1.
        show: How lengths and other quantities are written.
    """
    build, making = leaf.build, leaf.making
    if build is None or making is None:
        return empty_view("no leaf yet: nothing to glue")
    plan = making.glue
    if plan is None:
        return empty_view("nothing of this leaf is glued")
    found = plan.stage(number) or plan.stage(1)
    if found is None:
        return _no_plan(plan, show)
    sketch = Sketch(show)
    task, stage = found
    _leaf(sketch, leaf, build, stage)
    _minutes(sketch, plan, task, stage)
    return sketch.drawing(margin=16)


def _no_plan(plan: GluePlan, show: Show) -> Drawing:
    sketch = Sketch(show)
    trouble = next(each for each in plan.tasks if not each.stages)
    sketch.label(
        (500, 420), f"{trouble.task.name.capitalize()} cannot be glued in time", Lettering(Layer.DOUBT, 1.4, bold=True)
    )
    for n, line in enumerate(broken(show, trouble.trouble, 80)):
        sketch.label((500, 370 - 28 * n), line)
    for n, way in enumerate(trouble.ways):
        sketch.label((500, 270 - 28 * n), way, PENCIL)
    sketch.box(Rect(0, 100, 1000, 520), Layer.FAINT)
    return sketch.drawing()


def _leaf(sketch: Sketch, leaf: LeafSolution, build: Build, stage: GlueStage) -> None:
    """The leaf on the bench, opening face up.

    What is glued now is in its own wood, the clamps over and under it in turn.
    """
    k = min(TALL / build.height, 400.0 / build.width)
    small = Sketch(sketch.show, mirror_at=build.width if leaf.leaf.hand is Hand.RIGHT else None)
    parts = {name for each in stage.closings for name in each.parts}
    x0 = (440.0 - build.width * k) / 2
    y0 = (TALL - build.height * k) / 2
    for part in sorted(build.parts, key=lambda p: (p.role is not Role.PANEL, p.name in parts)):
        points = [(x0 + x * k, y0 + y * k) for x, y in (small.at(*corner) for corner in part.corners)]
        if part.name in parts:
            sketch.area(
                points,
                Layer.WOOD,
                ref=f"part:{part.name}",
                tint=stuff(part.species).tint,
                grain=Grain.UPRIGHT if part.grain_upright else Grain.LEVEL,
            )
        sketch.line([*points, points[0]], Layer.OUTLINE if part.name in parts else Layer.FAINT)
    bars = [line for each in stage.closings for line in each.bars]
    drawn: set[tuple[int, int, int, int]] = set()
    for at, bar in enumerate(bars):
        key = tuple(round(v) for point in bar for v in point)
        if key not in drawn:
            drawn.add(key)  # type: ignore[arg-type]
            _clamp(sketch, bar, k, (x0, y0), small, under=at % 2 == 1)
    for n, closing in enumerate(stage.closings[:9], start=1):
        face = build.part(closing.parts[0]).face
        x, y = small.at(*(closing.at or ((face.x0 + face.x1) / 2, (face.y0 + face.y1) / 2)))
        sketch.label((x0 + x * k, y0 + y * k), str(n), Lettering(size=1.2, bold=True, on_paper=True))


def _clamp(sketch: Sketch, bar: Line, k: float, at: tuple[float, float], small: Sketch, *, under: bool) -> None:
    (ax, ay), (bx, by) = (small.at(*each) for each in bar)
    a, b = (at[0] + ax * k, at[1] + ay * k), (at[0] + bx * k, at[1] + by * k)
    level = abs(a[1] - b[1]) < abs(a[0] - b[0])
    dx, dy = (JAW, 0.0) if level else (0.0, JAW)
    low, high = (a, b) if (a[0] + a[1]) <= (b[0] + b[1]) else (b, a)
    ends = ((low[0] - dx, low[1] - dy), (high[0] + dx, high[1] + dy))
    sketch.line(ends, Layer.HIDDEN if under else Layer.DIMENSION)
    for (x, y), side in zip(ends, (1, -1), strict=True):
        jaw = Rect(
            min(x, x + side * dx * 0.6) - (0 if level else 5),
            min(y, y + side * dy * 0.6) - (5 if level else 0),
            max(x, x + side * dx * 0.6) + (0 if level else 5),
            max(y, y + side * dy * 0.6) + (5 if level else 0),
        )
        sketch.rect(jaw, Layer.METAL)
        sketch.box(jaw, Layer.OUTLINE)


def _minutes(sketch: Sketch, plan: GluePlan, task: TaskPlan, stage: GlueStage) -> None:
    """A bar as tall as the glue stays open, filled by what is done in it; what closes and when stands beside it."""
    show = sketch.show
    k = TALL / plan.glue.open_minutes
    sketch.box(Rect(BAR_X, 0, BAR_X + BAR_WIDE, TALL), Layer.OUTLINE)
    sketch.label((BAR_X + BAR_WIDE / 2, -16), f"{plan.glue.open_minutes:.1f} min open", Lettering(size=0.95, bold=True))
    at = 0.0
    where = ", ".join(("", f"stage {stage.number} of {len(task.stages)}")) if len(task.stages) > 1 else ""
    sketch.write((WORDS_X, TALL + 14), f"{task.task.name.capitalize()}{where}", Lettering(size=1.25, bold=True))
    y = TALL - 24
    for n, (closing, start) in enumerate(zip(stage.closings, stage.start, strict=True), start=1):
        end = start + closing.minutes / plan.people
        rect = Rect(BAR_X, TALL - end * k, BAR_X + BAR_WIDE, TALL - start * k)
        sketch.rect(rect, Layer.WOOD, tint=OAK)
        sketch.box(rect, Layer.OUTLINE)
        if rect.height > 18:
            sketch.label((BAR_X + BAR_WIDE / 2, (rect.y0 + rect.y1) / 2), str(n), BOLD)
        at = end
        if n <= 9:
            for m, line in enumerate(broken(show, closing.words, WRAP, f"{n}  {start:.1f} min  ")[:3]):
                sketch.write((WORDS_X + (0 if m == 0 else 18), y), line, Lettering(size=0.95))
                y -= LINE
    clamps = stage.minutes - SQUARE_MINUTES
    sketch.rect(Rect(BAR_X, TALL - clamps * k, BAR_X + BAR_WIDE, TALL - at * k), Layer.METAL)
    sketch.rect(Rect(BAR_X, TALL - stage.minutes * k, BAR_X + BAR_WIDE, TALL - clamps * k), Layer.BAND)
    sketch.line([(BAR_X - 8, TALL - stage.minutes * k), (BAR_X + BAR_WIDE + 8, TALL - stage.minutes * k)], Layer.LEAF)
    cauls = "; one pulls two places over a bowed caul" if stage.cauls else ""
    lines = [
        f"{at:.1f} min  {stage.clamps} places to clamp, {plan.clamps} clamps{cauls}; {CLAMP_MINUTES:g} min each",
        f"{clamps:.1f} min  diagonals, winding sticks",
        f"{stage.minutes:.1f} min  done: {plan.spare(stage):.1f} to spare",
        f"then {plan.glue.clamp_hours:.1f} h in the clamps",
        f"{task.task.cauls}",
        f"{plan.glue.name}, {plan.glue.durability}: fills {show.fine(plan.glue.gap)}; {plan.glue.end_grain}",
        plan.glue.clean,
    ]
    y -= 8
    for n, words in enumerate(lines):
        for m, line in enumerate(broken(show, words, WRAP)):
            if y < 0:
                return
            sketch.write(
                (WORDS_X + (0 if m == 0 else 18), y), line, Lettering(Layer.PENCIL if n > 3 else Layer.OUTLINE, 0.95)
            )
            y -= LINE
