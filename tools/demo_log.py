"""The demo's half-made leaf: the log of the ledger cupboard, invented, with a mishap that is mended."""

from __future__ import annotations

from datetime import date, datetime

from oakmeasure.core.document.adjustment import Gaps, HungChoices, RunLeaf, SignOff, Sliding
from oakmeasure.core.document.production import About, LogEntry, LogKind, MakeChoices, MishapKind, ReadingKind

# operation, day of November 2026, begun, done; a time of its own between them is a stop for the day
WORKED: tuple[tuple[str, int, str, str], ...] = (
    ("measure:set", 16, "08:10", "08:25"),
    ("setout:rod", 16, "08:30", "08:55"),
    ("choose:boards", 16, "09:00", "09:20"),
    ("crosscut:rough", 16, "09:20", "09:35"),
    ("trial:finish", 16, "09:40", "09:50"),
    ("rip:rough", 16, "09:55", "10:20"),
    ("rest:rough", 16, "10:20", "10:25"),
    ("true:parts", 18, "13:00", "13:30"),
    ("thickness:parts", 18, "13:30", "13:50"),
    ("width:parts", 18, "13:50", "14:15"),
    ("length:parts", 18, "14:15", "14:25"),
    ("mark:parts", 18, "14:30", "14:40"),
    ("mark:joints", 19, "08:15", "08:35"),
    ("mortise:stiles", 19, "08:40", "09:25"),
    ("mend:1", 19, "09:40", "10:05"),
    ("groove:frame", 20, "08:20", "08:55"),
    ("tenon:rails", 20, "09:00", "09:40"),
    ("fit:joints", 20, "09:45", "10:35"),
    ("cut:panels", 20, "10:40", "10:55"),
    ("sand:inside", 20, "11:00", "11:10"),
    ("coat:tongues", 20, "11:15", "11:25"),
    ("dry:frame", 23, "08:30", "08:40"),
    ("glue:frame", 23, "08:50", "09:10"),
    ("flush:frame", 24, "08:15", "08:30"),
    ("check:leaf", 24, "08:30", "08:40"),
)
READ: tuple[tuple[int, str, str, ReadingKind, float], ...] = (
    (16, "09:10", "choose:boards", ReadingKind.MOISTURE, 9.6),
    (24, "08:33", "check:leaf", ReadingKind.RISING, 928.0),
    (24, "08:34", "check:leaf", ReadingKind.FALLING, 927.5),
    (24, "08:36", "check:leaf", ReadingKind.SPREAD, 0.2),
    (24, "08:37", "check:leaf", ReadingKind.TWIST, 0.5),
    (24, "08:39", "check:leaf", ReadingKind.THICKNESS, 17.4),
)


# How some leaves of the demo hang: one out of level, a run, a pair, one that slides and binds, one that is signed off.
HUNG = {
    "press-left": HungChoices(gaps=Gaps(low_latch=2.4, proud_top=1.1)),
    "pigeon-holes": HungChoices(
        run=(
            RunLeaf(low_left=0.8, low_right=1.4, gap_top=14.5, gap_bottom=15.7),
            RunLeaf(low_left=-0.6, low_right=-0.9, gap_top=16.3, gap_bottom=17.3, proud_top=0.7),
            RunLeaf(low_left=0.2, low_right=-0.8),
        )
    ),
    "pair": HungChoices(
        gaps=Gaps(
            hinge_top=3.4,
            hinge_bottom=2.2,
            latch_top=2.1,
            latch_middle=3.0,
            latch_bottom=3.9,
            head_hinge=2.0,
            head_latch=1.4,
        ),
        second=Gaps(hinge_top=2.6, hinge_bottom=3.3, head_hinge=2.0, head_latch=1.7),
    ),
    "winnowing": HungChoices(proof_held=True, sliding=Sliding(jamb_top=6.0, jamb_bottom=3.0, rail_rises=4.0)),
    "scullery": HungChoices(
        gaps=Gaps(
            hinge_top=3.1,
            hinge_middle=2.2,
            hinge_bottom=1.3,
            latch_top=1.8,
            latch_middle=2.8,
            latch_bottom=3.7,
            head_hinge=2.1,
            head_middle=1.7,
            head_latch=1.3,
        )
    ),
    "drying-loft": HungChoices(
        gaps=Gaps(
            hinge_top=2.1,
            hinge_middle=2.0,
            hinge_bottom=1.9,
            latch_top=3.0,
            latch_middle=3.2,
            latch_bottom=3.1,
            head_hinge=2.0,
            head_latch=2.2,
            floor_hinge=6.5,
            floor_latch=6.0,
        ),
        signed=SignOff(
            on=date(2026, 11, 20),
            by="I. Tarn",
            width=661.8,
            mass_kg=15.6,
            note="Top butt packed with one shim of 0.25; look at it after the first winter.",
        ),
    ),
}


def _at(day: int, clock: str) -> datetime:
    hour, minute = clock.split(":")
    return datetime(2026, 11, day, int(hour), int(minute))


def ledger_making() -> MakeChoices:
    """Half made: glued, flushed and checked; it came out thinner than it was set out."""
    log = []
    for op, day, begun, done in WORKED:
        log += [
            LogEntry(at=_at(day, begun), kind=LogKind.START, op=op),
            LogEntry(at=_at(day, done), kind=LogKind.DONE, op=op),
        ]
    log += [
        LogEntry(at=_at(day, at), kind=LogKind.READING, op=op, reading=kind, value=value)
        for day, at, op, kind, value in READ
    ]
    split = {"part": "latch stile", "mishap": MishapKind.SPLIT, "op": "mortise:stiles"}
    log += [
        LogEntry(
            at=_at(19, "09:20"),
            kind=LogKind.MISHAP,
            value=45.0,
            repair="glue",
            photo="photos/ledger-split.jpg",
            text="the last bite of the chisel ran along the grain",
            **split,
        ),
        LogEntry(at=_at(19, "10:05"), kind=LogKind.MENDED, repair="glue", **(split | {"op": "mend:1"})),
        LogEntry(
            at=_at(19, "10:06"),
            kind=LogKind.NOTE,
            op="mortise:stiles",
            about=About.CONSTRUCTION,
            text="Thin stiles: clamp the cheeks before the last bite, they split at the end of the mortise.",
        ),
        LogEntry(
            at=_at(24, "08:40"),
            kind=LogKind.NOTE,
            op="check:leaf",
            about=About.TIMBER,
            text="This oak lost 0.6 from plane to sander: leave 0.5 a face next time.",
        ),
    ]
    return MakeChoices(log=tuple(sorted(log, key=lambda entry: entry.at)), due=date(2026, 12, 4), joint_minutes=None)
