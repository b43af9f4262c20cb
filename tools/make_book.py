"""Writes the three made-up leaves of the job book that ship with the application, from leaves of the demo job."""

from __future__ import annotations

from datetime import date, datetime
from pathlib import Path

from oakmeasure.core.document.adjustment import Gaps, HungChoices, SignOff
from oakmeasure.core.document.production import About, LogEntry, LogKind, MakeChoices
from oakmeasure.core.reports.hanging_record import entry_of_leaf
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_book import dumps, file_name
from oakmeasure.files.job.job_file import demo_job

# leaf of the demo, what it is called here, which job, where, when, by whom, its gaps, what was learnt
BOOK = (
    (
        "drying-loft",
        "Boat store, side door",
        "Ferry house",
        "slipway, ground floor",
        date(2025, 3, 14),
        "I. Tarn",
        Gaps(hinge_top=2.1, hinge_bottom=1.9, latch_top=3.0, latch_bottom=3.2, head_hinge=2.0, head_latch=2.2),
        About.HARDWARE,
        "let-in:leaf",
        "These butts are 0.2 thinner than their sheet: let in to the hinge, not to the figure.",
    ),
    (
        "coal-hole",
        "Net loft hatch",
        "Ferry house",
        "loft",
        date(2025, 5, 2),
        "I. Tarn",
        Gaps(hinge_top=2.0, hinge_bottom=2.4, latch_top=2.8, latch_bottom=2.6),
        About.CONSTRUCTION,
        "seal:boards",
        "Coat the tongues before the ledges go on, not after the first dry week.",
    ),
    (
        "barn-side",
        "Cart shed slab",
        "Upper mill",
        "yard",
        date(2026, 2, 20),
        "M. Alder",
        Gaps(floor_hinge=10.5, floor_latch=9.5),
        About.TIMBER,
        "flat:slab",
        "Ponderosa moves with the first rain: hang it a week later than it looks ready.",
    ),
)


def main() -> None:
    folder = Path(__file__).parent.parent / "src/oakmeasure/data/book"
    folder.mkdir(exist_ok=True)
    job = demo_job()
    for leaf_id, name, job_name, place, on, by, gaps, about, op, words in BOOK:
        note = LogEntry(at=datetime(on.year, on.month, on.day, 10), kind=LogKind.NOTE, op=op, about=about, text=words)
        leaf = job.leaf(leaf_id).model_copy(
            update={
                "name": name,
                "making": MakeChoices(log=(note,)),
                "hung": HungChoices(gaps=gaps, proof_held=True, signed=SignOff(on=on, by=by)),
            }
        )
        past = job.model_copy(update={"name": job_name, "place": place, "leaves": (leaf,)})
        entry = entry_of_leaf(past, solve(past).leaves[0])
        target = folder / file_name(entry)
        target.write_text(dumps(entry), encoding="utf-8")
        print(target)


if __name__ == "__main__":
    main()
