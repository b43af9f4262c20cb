"""A batch over the leaves of a job, labels as they are printed, and where in the leaf something went wrong."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.units import Show, counted
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import PENCIL, Anchor, Drawing, Layer, Lettering, Room, Sketch
from oakmeasure.core.drawings.timber.plan_view import empty_view
from oakmeasure.core.drawings.words import broken, cut_off
from oakmeasure.core.leaf.part import Build, Rect
from oakmeasure.core.making.labels import PieceLabel
from oakmeasure.core.making.log import Progress
from oakmeasure.core.making.repair_case import Judgement
from oakmeasure.core.reports.batch import Batch
from oakmeasure.core.solution import LeafSolution

CELL_WIDE = 240.0
CELL_HIGH = 280.0
THUMB_HIGH = 168.0
MOST = 12
LABEL_WIDE = 330.0
LABEL_HIGH = 190.0
LABEL_LINE = 23.0
LABELS_SHOWN = 9


def batch_view(batch: Batch | None, leaves: dict[str, LeafSolution], show: Show) -> Drawing:
    """Return the leaves that share an operation, the parts at hand lit in each, its settings under it.

    Args:
        batch: The batch that is shown; None for none.
        leaves: The leaves by their ids, worked out.
        show: How lengths and other quantities are written.
    """
    if batch is None:
        return empty_view("no operation yet")
    sketch = Sketch(show)
    shown = batch.leaves[:MOST]
    columns = 4 if len(shown) > 3 else max(len(shown), 2)
    for n, each in enumerate(shown):
        x0, y0 = (n % columns) * CELL_WIDE, -(n // columns) * CELL_HIGH
        solved = leaves.get(each.leaf_id)
        if solved is None or solved.build is None:
            continue
        _leaf(sketch, solved, solved.build, set(each.op.parts), Rect(x0, y0, x0 + 96.0, y0 + THUMB_HIGH))
        done = {Progress.DONE: "✓ ", Progress.RUNNING: "▸ "}.get(each.progress, "")
        sketch.write(
            (x0, y0 - 26),
            f"{done}{each.leaf}",
            Lettering(size=0.9, bold=True),
            ref=f"leaf:{each.leaf_id}",
            room=Room(
                CELL_WIDE - 14, shorter=tuple(show.speech.mark_final(f"{done}{each.leaf[:n]}…") for n in (22, 17, 12))
            ),
        )
        for m, setting in enumerate(each.op.settings[:6]):
            sketch.write(
                (x0 + 104, y0 + THUMB_HIGH - 12 - 23 * m),
                setting.in_words(show),
                Lettering(Layer.LEAF, 0.9),
                room=Room(CELL_WIDE - 114, shorter=(setting.in_words(show)[-16:],)),
            )
        if not each.op.settings:
            sketch.write((x0 + 104, y0 + THUMB_HIGH - 12), counted(len(each.op.parts), "part"), PENCIL)
    if len(batch.leaves) > MOST:
        sketch.write((0, -(MOST // columns - 1) * CELL_HIGH - 46), f"and {len(batch.leaves) - MOST} more, at the left")
    return sketch.drawing(margin=16)


def _leaf(sketch: Sketch, solved: LeafSolution, build: Build, lit: set[str], room: Rect) -> None:
    k = min(room.width / build.width, room.height / build.height)
    small = Sketch(sketch.show, mirror_at=build.width if solved.leaf.hand is Hand.RIGHT else None)
    for part in build.parts:
        points = [(room.x0 + x * k, room.y0 + y * k) for x, y in (small.at(*corner) for corner in part.corners)]
        if part.name in lit or not lit:
            sketch.area(points, Layer.WOOD, tint=stuff(part.species).tint)
        sketch.line([*points, points[0]], Layer.OUTLINE if part.name in lit or not lit else Layer.FAINT)
    x1, y1 = room.x0 + build.width * k, room.y0 + build.height * k
    sketch.box(Rect(room.x0, room.y0, x1, y1), Layer.PENCIL)


def labels_view(labels: Sequence[PieceLabel], show: Show, *, page: int = 0) -> Drawing:
    """Return labels as they are printed, nine at a time: an arrow to the head, the name, joints in large letters.

    Args:
        labels: The labels.
        show: How lengths and other quantities are written.
        page: Which page of them, from 0.
    """
    if not labels:
        return empty_view("no parts to label")
    sketch = Sketch(show)
    shown = labels[page * LABELS_SHOWN : (page + 1) * LABELS_SHOWN] or labels[:LABELS_SHOWN]
    for n, label in enumerate(shown):
        x0, y1 = (n % 3) * (LABEL_WIDE + 14), -(n // 3) * (LABEL_HIGH + 14)
        _label(sketch, label, Rect(x0, y1 - LABEL_HIGH, x0 + LABEL_WIDE, y1))
    return sketch.drawing(margin=12)


def _label(sketch: Sketch, label: PieceLabel, r: Rect) -> None:
    show = sketch.show
    sketch.rect(r, Layer.SPACE, ref=f"part:{label.name}")
    sketch.box(r, Layer.PENCIL)
    y = r.y1 - 20
    sketch.write(
        (r.x0 + 12, y),
        f"{label.number}  {label.name}".strip(),
        Lettering(size=1.05, bold=True),
        room=Room(LABEL_WIDE - 44, shorter=cut_off(show, label.name, 20, 15, head=f"{label.number}  ")),
    )
    tip = (r.x1 - 22, r.y1 - 10)
    if label.head.startswith("arrow up"):
        sketch.line([(tip[0], tip[1] - 30), tip], Layer.LEAF)
        sketch.line([(tip[0] - 7, tip[1] - 10), tip, (tip[0] + 7, tip[1] - 10)], Layer.LEAF)
    else:
        sketch.line([(tip[0] - 24, tip[1] - 14), (tip[0] + 6, tip[1] - 14)], Layer.LEAF)
        sketch.line([(tip[0] - 4, tip[1] - 8), (tip[0] + 6, tip[1] - 14), (tip[0] - 4, tip[1] - 20)], Layer.LEAF)
    rest = [
        f"{label.leaf}{', ' + label.piece if label.piece else ''}",
        label.size,
        f"face: {label.face}",
        f"edge: {label.edge}" if label.edge else "",
        label.hand,
    ]
    y -= 28
    for n, words in enumerate(each for each in rest if each):
        sketch.write(
            (r.x0 + 12, y),
            words,
            Lettering(Layer.OUTLINE if n < 2 else Layer.PENCIL, 0.92),
            room=Room(LABEL_WIDE - 24 - (70 if y < r.y0 + 60 else 0), shorter=cut_off(show, words, 26)),
        )
        y -= LABEL_LINE
    if label.letters:
        sketch.label(
            (r.x1 - 12, r.y0 + 22),
            label.letters,
            Lettering(Layer.LEAF, 1.6, bold=True),
            anchor=Anchor.RIGHT,
            room=Room(150, shorter=(label.letters[:9] + "…",)),
        )


def mishap_view(leaf: LeafSolution, part: str, judged: Judgement | None, words: str, show: Show) -> Drawing:
    """Return where in the leaf it happened, what it means, and each repair with its sizes and what else moves.

    Args:
        leaf: The leaf, worked out to the end.
        part: Name of the part; "" for the leaf as a whole.
        judged: What the mishap means; None before it is described.
        words: The words.
        show: How lengths and other quantities are written.
    """
    build = leaf.build
    if build is None:
        return empty_view("no leaf yet")
    sketch = Sketch(show)
    _leaf(sketch, leaf, build, {part} if part else set(), Rect(0, 0, 270, 600))
    if judged is None:
        for at, words in enumerate(("Say at the left what went wrong,", "on which part, and by how much.")):
            sketch.write((330, 560 - 20 * at), words)
        return sketch.drawing(margin=16)
    y = 588.0
    sketch.write((330, y), f"{words}: {judged.sound}", Lettering(size=1.3, bold=True))
    y -= 30
    sketch.write((330, y), judged.words, room=Room(670, shorter=cut_off(show, judged.words, 60)))
    y -= 18
    for repair in judged.repairs:
        lines = [f"{repair.words}; {repair.why}" if repair.fits else f"not here: {repair.why}"]
        if repair.fits:
            lines += ["   ".join(f"{label} {show.length(value)}" for label, value in repair.sizes)]
            lines += [f"moves: {'; '.join(repair.moves)}"] if repair.moves else []
        wrapped = [line for text in lines if text for line in broken(show, text, 66)]
        if y - 32 - 22 * len(wrapped) < 0:
            break
        y -= 30
        time = f"{repair.hours:.1f} h" + (f" + {repair.wait_hours:.0f} h" if repair.wait_hours else "")
        best = repair is judged.best
        sketch.write(
            (330, y),
            repair.name,
            Lettering(Layer.OUTLINE if repair.fits else Layer.FAINT, 1.05, bold=best),
            ref=f"repair:{repair.key}",
        )
        sketch.label((1000, y), time if repair.fits else "", Lettering(Layer.LEAF), anchor=Anchor.RIGHT)
        for line in wrapped:
            y -= 22
            sketch.write((346, y), line, Lettering(Layer.PENCIL, 0.92))
    return sketch.drawing(margin=16)
