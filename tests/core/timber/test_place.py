"""Where a leaf lives: its air, and what core, glue, finish and fixings must bear."""

from __future__ import annotations

from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.document.job import Exposure, TimberChoices
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.place import finish_of, fixings_of, glue_of, sheets_for
from samples import codes, job, said, solved


def test_place_sets_its_air_and_limits_core_glue_finish_fixings_and_slopes():
    made = job_edits.with_place(job(build=Layered(sheet="mdf")), "leaf-1", Exposure.OUTSIDE)
    timber = made.leaf("leaf-1").timber
    assert (timber.wet.humidity, glue_of(timber), finish_of(timber), fixings_of(timber)) == (
        88,
        "D4",
        "outside paint",
        "stainless steel",
    )
    leaf = solve(made).leaves[0]
    stop = said(leaf, "place-core")
    assert stop.level is Level.STOP
    mended = solve(job_edits.with_remedy(made, "leaf-1", stop.remedies[0])).leaves[0]
    assert "place-core" not in codes(mended)
    assert mended.figures["place_slope"].value == 9
    assert "9°" in said(mended, "place").sentence
    for field, value, code in (
        ("glue", "D2", "place-glue"),
        ("finish", "oil or wax", "place-finish"),
        ("fixings", "plain steel", "place-fixings"),
    ):
        wrong = job_edits.with_field(made, "leaf-1", f"timber.{field}", value)
        look = said(solve(wrong).leaves[0], code)
        assert code not in codes(solve(job_edits.with_remedy(wrong, "leaf-1", look.remedies[0])).leaves[0])
    wet = job_edits.with_place(job(timber=TimberChoices(fixings="plated steel")), "leaf-1", Exposure.WET)
    assert "place-tannin" in codes(solve(wet).leaves[0], Level.WARNING)
    assert solve(wet).leaves[0].figures["moisture_wet"].value > solved().figures["moisture_wet"].value
    assert "mdf" not in sheets_for(Exposure.WET)
    assert set(sheets_for(Exposure.OUTSIDE)) < set(sheets_for(Exposure.WET)) < set(sheets_for(Exposure.DRY))
