from __future__ import annotations

import csv
import io
import json
import os
import stat
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import SCHEMA_VERSION
from oakmeasure.core.document.schema import job_schema
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.hardware.clash.zones import zones
from oakmeasure.core.solver import solve
from oakmeasure.files.job.job_file import JobFileError, dumps, load, loads, save
from oakmeasure.files.pdf.bench_sheet import bench_sheet_pdf
from oakmeasure.files.pdf.keep_outs import zone_sheet_pdf
from oakmeasure.files.tables import lists as tables
from samples import job, solved

jobs = st.builds(
    lambda width, stile, muntin, inch, state: job_edits.with_state(
        field_path.with_value(job(width, build=Framed(stile=stile, muntin=muntin)), "unit", inch),
        "leaf-1",
        "readings.width_top",
        state,
    ),
    st.floats(400, 1200),
    st.floats(40, 150),
    st.none() | st.floats(30, 150),
    st.sampled_from(UnitSystem),
    st.sampled_from(Provenance),
)


@given(jobs)
def test_saving_and_loading_gives_the_same_job_to_the_last_bit(made):
    again = loads(dumps(made))
    assert again == made
    assert dumps(again) == dumps(made)
    assert [each.value for each in solve(again).leaves[0].figures] == [
        each.value for each in solve(made).leaves[0].figures
    ]


def test_job_file_is_sorted_json_with_its_version_and_follows_the_published_schema(demo):
    document = json.loads(dumps(demo))
    assert list(document) == sorted(document)
    assert document["schema_version"] == 9
    published = json.loads((Path(__file__).parents[3] / "docs/job.schema.json").read_text(encoding="utf-8"))
    assert of_kinds(job_schema(), published) == published
    jsonschema.validate(document, published)


def of_kinds(schema, published):
    """Return a schema with the constructions that are published: one that is being built is not, `./run lint` tells."""
    kinds = published["$defs"]["Leaf"]["properties"]["build"]["discriminator"]["mapping"]
    build = schema["$defs"]["Leaf"]["properties"]["build"]
    build["discriminator"]["mapping"] = {
        key: ref for key, ref in build["discriminator"]["mapping"].items() if key in kinds
    }
    build["oneOf"] = [each for each in build["oneOf"] if each["$ref"] in kinds.values()]
    left = {key: value for key, value in schema["$defs"].items() if key in published["$defs"]}
    return schema | {"$defs": left}


@pytest.mark.parametrize(
    ("damage", "reason"),
    [
        (lambda text: text[: len(text) // 2], r"line \d+: .*damaged"),
        (lambda _: "", "line 1"),
        (lambda _: "[1]", "not a job"),
        (lambda _: "\x00\x01", "line 1"),
        (
            lambda t: t.replace(f'"schema_version": {SCHEMA_VERSION}', f'"schema_version": {SCHEMA_VERSION + 1}'),
            "newer version",
        ),
        (
            lambda t: t.replace('"thickness": 44.0', '"thickness": 4400.0'),
            r"line \d+: .*thickness: 4400, needs 16 mm to 90 mm",
        ),
        (lambda t: t.replace('"stile": 95.0', '"stile": NaN'), "NaN"),
        (lambda t: t.replace('"stile": 95.0', '"style": 95.0'), "style"),
        (lambda t: t.replace('"species": "european_oak"', '"species": "heartwood"'), "species of the table"),
        (lambda t: t.replace('"stile": 95.0', '"stile": "wide"'), "valid number"),
        (lambda _: "[" * 100000, "."),
    ],
)
def test_damaged_job_file_is_refused_with_its_reason_and_left_as_it_was(tmp_path, demo, damage, reason):
    path = tmp_path / "store.oakjob"
    path.write_text(damage(dumps(demo)), encoding="utf-8")
    before = path.read_bytes()
    with pytest.raises(JobFileError, match=r"store\.oakjob was not opened: .*" + reason):
        load(path)
    assert path.read_bytes() == before


def test_file_that_is_missing_binary_or_a_folder_is_refused(tmp_path):
    binary = tmp_path / "b.oakjob"
    binary.write_bytes(b"\xff\xfe\x00")
    for path in (tmp_path / "none.oakjob", binary, tmp_path):
        with pytest.raises(JobFileError, match="was not opened"):
            load(path)


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=8),
        lambda inner: (
            st.lists(inner, max_size=4)
            | st.dictionaries(
                st.sampled_from(["schema_version", "leaves", "name", "rules", "build", "readings"]), inner, max_size=5
            )
        ),
        max_leaves=20,
    )
)
def test_no_json_at_all_gives_a_traceback(document):
    with pytest.raises(JobFileError):
        loads(json.dumps(document))


def test_save_is_whole_or_not_at_all(tmp_path, demo, monkeypatch):
    path = tmp_path / "store.oakjob"
    save(demo, path)
    before = path.read_bytes()
    assert stat.S_IMODE(path.stat().st_mode) == 0o644

    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(JobFileError, match="no space left"):
        save(field_path.with_value(demo, "name", "Other"), path)
    assert path.read_bytes() == before
    assert [each.name for each in tmp_path.iterdir()] == ["store.oakjob"]
    with pytest.raises(JobFileError, match="was not written"):
        save(demo, tmp_path / "no such folder" / "x.oakjob")


# --- lists -----------------------------------------------------------------------------------------------


def test_cut_list_reads_back_as_the_parts(demo, solved_demo):
    solution = solved_demo
    rows = list(csv.DictReader(io.StringIO(tables.cut_list_csv(solution))))
    parts = [(leaf, part) for leaf in solution.leaves for part in leaf.cut_parts]
    assert tuple(rows[0]) == tables.CUT_LIST_HEADER
    for row, (leaf, part) in zip(rows, parts, strict=True):
        assert (row["leaf"], row["part"], row["no"]) == (leaf.leaf.name, part.name, part.mark)
        assert float(row["length_mm"]) == pytest.approx(part.finished.length, abs=0.005)
        assert float(row["rough_width_mm"]) == pytest.approx(part.rough.width, abs=0.005)
    mass = sum(float(row["mass_kg"]) for row in rows if row["leaf"] == demo.leaves[0].name)
    assert mass == pytest.approx(solution.leaves[0].figures["mass"].value, abs=0.06)


def test_boring_list_names_member_datum_and_hand(solved_demo):
    rows = list(csv.DictReader(io.StringIO(tables.boring_list_csv(solved_demo))))
    assert tuple(rows[0]) == tables.BORING_LIST_HEADER
    parts = {leaf.leaf.name: {part.name for part in leaf.build.parts} for leaf in solved_demo.leaves if leaf.build}
    carriers = {
        "hinge lining leg",
        "latch lining leg",
        "lining head",
        "floor or sill",
        "cabinet side",
        "foot",
        "head",
        "cabinet, hinge side",
        "cabinet, latch side",
        "leaf",
    }
    named = {row["member"] for row in rows}
    assert all(row["member"].removesuffix(", slow leaf") in parts[row["leaf"]] | carriers for row in rows)
    assert {"hinge stile", "latch lipping", "hinge lining leg", "latch stile, slow leaf", "strip 7", "foot"} <= named
    assert {row["hand"] for row in rows if row["leaf"] == "Drying loft door"} == {"hinges right"}
    assert all(float(row["to_mm"]) - float(row["from_top_mm"]) == pytest.approx(float(row["along_mm"])) for row in rows)
    for row in rows:  # a cup is marked by its middle, a butt by its upper end
        half = float(row["along_mm"]) / 2 if row["marked_by"] == "its middle" else 0.0
        assert float(row["mark_mm"]) == pytest.approx(float(row["from_top_mm"]) + half, abs=0.01)
    assert {row["marked_by"] for row in rows if row["what"].startswith("cup")} == {"its middle"}


def test_sheet_of_keep_out_zones_is_one_page_with_every_zone(demo, solved_demo):
    solution = solved_demo
    for leaf_id in ("office-store", "winnowing", "packet-press", "pair", "walnut"):
        leaf = solution.leaf(leaf_id)
        text, pages = text_of(zone_sheet_pdf(demo, leaf))
        assert pages == 1
        flat = " ".join(text.split())
        assert all(zone.name in flat for zone in zones(leaf.clashes, leaf.body))
        assert "keep-out zones" in flat


def test_bench_sheet_says_what_a_sliding_leaf_and_a_cupboard_hang_on(demo, solved_demo):
    solution = solved_demo
    text, _ = text_of(bench_sheet_pdf(demo, solution.leaf("walnut")))
    flat = " ".join(text.split())
    assert "Two wheels: Whin hidden floor gear" in flat
    assert "Shims at them: 0, 1.5, 3, 4.5, 6, 7.5, 9." in flat
    barn = " ".join(text_of(bench_sheet_pdf(demo, solution.leaf("barn-side")))[0].split())
    assert "No stud behind: 50, 450, 850, 1250, 1650." in barn
    assert "hanger 1 bolt 1" in barn
    cups = " ".join(text_of(bench_sheet_pdf(demo, solution.leaf("packet-press")))[0].split())
    assert "plate's holes from the front edge 57 mm" in cups


@pytest.mark.parametrize("name", ["=1+1", "+cmd", "-2", "@sum"])
def test_cells_that_start_like_a_formula_are_escaped(name):
    made = job_edits.with_field(job(), "leaf-1", "name", name)
    rows = list(csv.reader(io.StringIO(tables.cut_list_csv(solve(made)))))
    cell = rows[1][0]
    assert cell == ("'" + name if name != "-2" else name)


def test_figures_record_has_what_the_command_promises(solved_demo):
    record = json.loads(json.dumps(tables.figures_record(solved_demo)))
    leaf = record["leaves"][0]
    assert {"id", "name", "construction", "hanging", "figures", "parts", "borings", "verdicts"} <= set(leaf)
    assert leaf["construction"] == "framed and panelled"
    for figure in leaf["figures"].values():
        assert isinstance(figure["value"], float | int)
        assert figure["working"]
        assert figure["unit"]
    assert "2 × stile: − 190 mm" in leaf["figures"]["shoulder"]["working"]


# --- paper -----------------------------------------------------------------------------------------------


def text_of(pdf: bytes) -> tuple[str, int]:
    reader = PdfReader(io.BytesIO(pdf))
    return "\n".join(page.extract_text() for page in reader.pages), len(reader.pages)


@pytest.mark.parametrize("leaf", [0, 1, 2])
def test_bench_sheet_is_one_leaf_of_a4_with_all_that_is_promised(demo, solved_demo, leaf):
    solution = solved_demo.leaves[leaf]
    pdf = bench_sheet_pdf(demo, solution)
    text, pages = text_of(pdf)
    assert pages == 2
    size = PdfReader(io.BytesIO(pdf)).pages[0].mediabox
    assert (round(float(size.width) / 72 * 25.4), round(float(size.height) / 72 * 25.4)) == (210, 297)
    for wanted in (
        "drawing 1 : ",
        solution.leaf.name,
        str(solution.leaf.hand),
        "Cut list",
        "Let in for hardware",
        "Checks",
        "Working of the main figures",
        "middle rail",
    ):
        assert wanted in text
    show = demo_show(demo)
    for name in ("leaf_width", "leaf_height", "rail_length"):
        assert show.length(solution.figures[name].value) in text
    for check in solution.checks:
        if check.level != "fine":
            assert check.title in text.replace("\n", " ")


def demo_show(made):
    from oakmeasure.core.base.units import Show

    return Show(made.unit)


def test_bench_sheet_draws_to_its_stated_scale():
    """The leaf's outline on the page, measured in points, against the scale that the page states."""
    from oakmeasure.core.base.units import Show
    from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
    from oakmeasure.files.pdf.drawing import Pen, scale_for

    solution = solved()
    drawing = leaf_view(solution, Show(), title=False)
    scale = scale_for(drawing, width=118, height=263)
    pen = Pen(None, drawing, left=10, top=270, scale=scale)  # type: ignore[arg-type]
    (x0, y0), (x1, y1) = pen.at((0, 0)), pen.at((solution.fit.width.value, solution.fit.height.value))
    assert (x1 - x0) / 72 * 25.4 * scale == pytest.approx(solution.fit.width.value, abs=0.01)
    assert (y1 - y0) / 72 * 25.4 * scale == pytest.approx(solution.fit.height.value, abs=0.01)
    assert f"drawing 1 : {scale}" in text_of(bench_sheet_pdf(job(), solution))[0]


def test_bench_sheet_prints_the_reason_that_a_stop_was_answered_with():
    made = job_edits.with_field(job(), "leaf-1", "build.lock_height", 300.0)
    code = "rails-bottom-rail-middle-rail"
    answered = job_edits.with_acknowledged(made, "leaf-1", code, "the old rail is kept for its carving")
    text, _ = text_of(bench_sheet_pdf(answered, solve(answered).leaves[0]))
    assert "DO NOT CUT" in text
    assert "kept for its carving" in text.replace("\n", " ")


def test_bench_sheet_in_inches_and_of_no_leaf_at_all():
    inch = field_path.with_value(job(rules="workshop-inch"), "unit", UnitSystem.INCH)
    text, _ = text_of(bench_sheet_pdf(inch, solve(inch).leaves[0]))
    assert '29 3/4"' in text
    tiny = job_edits.with_field(
        job_edits.with_field(job(215), "leaf-1", "fit.gap_hinge", 60.0), "leaf-1", "fit.gap_latch", 60.0
    )
    assert "No leaf fits" in text_of(bench_sheet_pdf(tiny, solve(tiny).leaves[0]))[0]


def test_file_of_an_older_version_opens_with_everything_that_it_held():
    old = Path(__file__).parents[1] / "samples/version-1.oakjob"
    before = old.read_bytes()
    job = load(old)
    assert [each.id for each in job.leaves] == ["seed-room", "drying-loft", "weighing-office"]
    assert job.leaves[0].readings.width_top.value == 742.0
    assert json.loads(dumps(job))["schema_version"] == 9
    assert old.read_bytes() == before  # opening changes no file
    second = load(old.with_name("version-2.oakjob"))
    assert second.leaf("sorting").slide.roller == 70.0
    assert second.leaf("scale-case").fit.even is None
    fourth = json.loads(old.with_name("version-4.oakjob").read_text(encoding="utf-8"))
    by_id = {each["id"]: each for each in fourth["leaves"]}
    by_id["ledger"]["cabinet"]["hinge_angle"] = 155.0  # somebody's choice, beside the hinge of a sheet that says 110
    upgraded = loads(json.dumps(fourth))
    opens = {each.id: each.hardware.cup.hinge.opens for each in upgraded.leaves}
    assert (opens["ledger"], opens["pigeon-holes"], opens["packet-press"]) == (155.0, 170.0, 95.0)
    turned = load(old.with_name("version-8.oakjob"))  # its latch side leans 6 away from the hinges: out of the opening
    assert [each.readings.lean_latch and each.readings.lean_latch.value for each in turned.leaves] == [-6.0, -1.5, None]


def test_bench_sheet_of_every_demo_leaf_has_two_pages_its_parts_and_what_is_to_be_noted(demo, solved_demo):
    for leaf in solved_demo.leaves:
        text, pages = text_of(bench_sheet_pdf(demo, leaf))
        assert pages == 2, leaf.leaf.id
        flat = " ".join(text.split())
        assert leaf.leaf.name in flat
        assert f"leaf, finished {Show().size(leaf.fit.width.value, leaf.fit.height.value)}" in flat, leaf.leaf.id
        for part in leaf.cut_parts:
            first = part.name if not part.name[-1].isdigit() else part.name.rpartition(" ")[0]
            assert first in flat, (leaf.leaf.id, part.name)
    trimmed = solved_demo.leaf("winnowing")  # 4 off its foot once it is made
    floor = Show().length(trimmed.figures["gap_floor"].value + 4)
    assert f"gaps: head, floor {Show().length(trimmed.figures['gap_head'].value)}, {floor}" in " ".join(
        text_of(bench_sheet_pdf(demo, trimmed))[0].split()
    )
    boarded = solved_demo.leaf("coal-hole")
    text, _ = text_of(bench_sheet_pdf(demo, boarded))
    flat = " ".join(text.split())
    assert "ends cut at 65.14°" in flat
    assert "board 2 to 6" in flat  # alike ones in one row
    assert "2–6" in flat
    rows = csv.DictReader(io.StringIO(tables.cut_list_csv(solved_demo)))
    row = next(each for each in rows if each["part"] == "brace" and each["leaf"].startswith("Coal"))
    assert row["note"] == "ends cut at 65.14°"


def test_a_negative_term_is_written_as_taken_off():
    from oakmeasure.core.figures.figure import given, minus, plus, total

    opening, overlap = given("opening", "opening", 2330.0), given("overlap", "overlap", -10.0)
    assert total("leaf", "leaf", plus(opening), plus(overlap)).lines(Show())[1] == "overlap: − 10 mm"
    assert total("leaf", "leaf", plus(opening), minus(overlap)).lines(Show())[1] == "overlap: + 10 mm"
