"""The log as lines of JSON and the book as plain files: everything comes back, what is damaged is told by its line."""

from __future__ import annotations

import json
from datetime import date, datetime

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oakmeasure.core.document.adjustment import HungChoices, SignOff
from oakmeasure.core.document.production import About, LogEntry, LogKind, MishapKind, ReadingKind
from oakmeasure.core.document.readings import MeasuredBy, Polygon, PolygonSide, Reading, restated
from oakmeasure.core.document.rules import FrozenModel
from oakmeasure.core.edits import job_edits
from oakmeasure.core.edits.log_edits import with_entry
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.solver import solve
from oakmeasure.files.job import job_book
from oakmeasure.files.job.job_file import JobFileError
from oakmeasure.files.tables.log_lines import LONGEST_FILE, log_lines, read_log, with_read
from samples import job

WORDS = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=60).filter(
    str.strip
)
WHEN = st.datetimes(datetime(2026, 1, 1), datetime(2027, 1, 1)).map(lambda at: at.replace(microsecond=0))
ENTRIES = st.one_of(
    st.builds(LogEntry, at=WHEN, kind=st.just(LogKind.NOTE), text=WORDS, about=st.none() | st.sampled_from(About)),
    st.builds(
        LogEntry,
        at=WHEN,
        kind=st.sampled_from((LogKind.START, LogKind.STOP, LogKind.DONE)),
        op=st.sampled_from(("setout:rod", "groove:frame")),
    ),
    st.builds(
        LogEntry,
        at=WHEN,
        kind=st.just(LogKind.READING),
        reading=st.just(ReadingKind.THICKNESS),
        value=st.floats(30, 50),
    ),
    st.builds(
        LogEntry,
        at=WHEN,
        kind=st.just(LogKind.MISHAP),
        mishap=st.sampled_from(MishapKind),
        part=st.just("hinge stile"),
        value=st.floats(0, 20),
    ),
)


@pytest.fixture(scope="module")
def plain():
    made = job()
    return made, {"leaf-1": solve(made).leaves[0]}


# --- the log -----------------------------------------------------------------------------------------------


@settings(max_examples=60, deadline=None)
@given(entries=st.lists(ENTRIES, max_size=12))
def test_a_log_that_is_written_and_read_into_the_bare_job_is_the_same_log(plain, entries):
    bare, leaves = plain
    full = with_entry(bare, "leaf-1", *dict.fromkeys(entries))
    read = read_log(log_lines(full), bare, leaves)
    assert read.refused == ()
    back = with_read(bare, read)
    assert set(back.leaves[0].making.log) == set(full.leaves[0].making.log)
    again = read_log(log_lines(full), back, leaves)
    assert (again.new, again.known) == ((), len(full.leaves[0].making.log))


@settings(max_examples=60, deadline=None)
@given(entries=st.lists(ENTRIES, min_size=1, max_size=6, unique=True), cut=st.integers(1, 40), data=st.data())
def test_a_line_that_is_cut_off_is_left_out_with_its_number_and_the_others_are_taken(plain, entries, cut, data):
    bare, leaves = plain
    lines = log_lines(with_entry(bare, "leaf-1", *entries)).split(b"\n")[:-1]
    at = data.draw(st.integers(0, len(lines) - 1))
    lines[at] = lines[at][: max(1, len(lines[at]) - cut)]
    read = read_log(b"\n".join(lines), bare, leaves)
    assert [each.line for each in read.refused] == [at + 1]
    assert len(read.new) + read.known == len(lines) - 1
    assert f"line {at + 1}: " in read.in_words()


@settings(max_examples=80, deadline=None)
@given(content=st.binary(max_size=200))
def test_whatever_stands_in_the_file_it_is_told_and_nothing_breaks(plain, content):
    bare, leaves = plain
    read = read_log(content, bare, leaves)
    assert len(read.refused) == sum(bool(line.strip()) for line in content.split(b"\n"))
    assert read.new == ()


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ({"leaf": "nobody", "kind": "note", "text": "x"}, "id of a leaf"),
        ({"leaf": "leaf-1", "kind": "note"}, "a few words"),
        ({"leaf": "leaf-1", "kind": "done"}, "operation"),
        ({"leaf": "leaf-1", "kind": "sung", "text": "x"}, "kind"),
        ({"leaf": "leaf-1", "kind": "reading", "reading": "thickness of the leaf"}, "what was read"),
        ({"leaf": "leaf-1", "kind": "mishap", "part": "hinge stile"}, "what went wrong"),
        ({"leaf": "leaf-1", "kind": "mishap", "mishap": "split", "part": "sail"}, "a part of the"),
        ({"leaf": "leaf-1", "kind": "note", "text": "x", "at": "2026-11-24T08:00:00+01:00"}, "without a zone"),
        ([1, 2], "one entry in braces"),
    ],
)
def test_a_line_that_makes_no_sense_says_why(plain, line, why):
    bare, leaves = plain
    if isinstance(line, dict):
        line = {"at": "2026-11-24T08:39:00", **line}
    read = read_log(json.dumps(line).encode(), bare, leaves)
    assert len(read.refused) == 1
    assert why in read.in_words()


def test_a_file_far_too_large_is_no_log(plain):
    with pytest.raises(ValueError, match="too large"):
        read_log(b" " * (LONGEST_FILE + 1), *plain)


# --- the book ----------------------------------------------------------------------------------------------


def signed(**more):
    sign = SignOff(on=date(2026, 11, 20), by="I. Tarn", **more)
    made = job(hung=HungChoices(signed=sign))
    note = LogEntry(at=datetime(2026, 11, 19, 9), kind=LogKind.NOTE, text="plane less", about=About.CONSTRUCTION)
    return with_entry(made, "leaf-1", note)


def test_a_record_of_the_book_comes_back_whole_and_takes_the_place_of_its_former_self(tmp_path, monkeypatch):
    monkeypatch.setattr(job_book, "place", lambda: tmp_path / "book")
    for width in (730.0, 731.0):
        made = signed(width=width)
        entry = job_book_entry(made)
        job_book.put(entry)
    found, wrong = job_book.read_all()
    mine = [each for each in found if each.by == "I. Tarn" and each.source.endswith(job_book.SUFFIX)]
    assert wrong == ()
    assert [each.width for each in mine] == [731.0]
    assert mine[0].lessons[0].text == "plane less"
    assert mine[0].document == entry.document
    assert list(found) == sorted(found, key=lambda each: each.on, reverse=True)


def job_book_entry(made):
    from oakmeasure.core.reports.hanging_record import entry_of_leaf

    return entry_of_leaf(made, solve(made).leaves[0])


def test_a_new_job_from_the_book_begins_unsigned_with_assumed_readings_and_an_empty_log():
    made = signed()
    fresh = job_book.start_again(job_book_entry(made))
    leaf = fresh.leaves[0]
    assert leaf.hung == HungChoices()
    assert leaf.making.log == ()
    assert leaf.readings.width_middle.state is Provenance.ASSUMED
    assert leaf.readings.width_middle.value == made.leaves[0].readings.width_middle.value
    assert leaf.build == made.leaves[0].build


def states_in(value):
    """Yield how well each reading in a part of the document is known."""
    if isinstance(value, Reading):
        yield value.state
    elif isinstance(value, FrozenModel):
        yield from (state for _, each in value for state in states_in(each))
    elif isinstance(value, tuple):
        yield from (state for each in value for state in states_in(each))


def test_nothing_of_a_leaf_begun_from_the_book_counts_as_measured_however_it_was_taken(demo):
    """Polygons, ticks, floor and lining too: nothing is cut to an assumed figure."""
    taken = set()
    for leaf in demo.leaves:
        alone = demo.model_copy(update={"leaves": (leaf,)})
        hung = job_edits.with_field(alone, leaf.id, "hung.signed", SignOff(on=date(2026, 11, 20), by="I. Tarn"))
        if solve(hung).leaves[0].build is None:
            continue
        fresh = job_book.start_again(job_book_entry(hung)).leaves[0]
        taken.add(leaf.measured_by)
        assert Provenance.MEASURED not in set(states_in(fresh)), leaf.name
    assert taken >= {MeasuredBy.TAPE, MeasuredBy.TICKS}
    spans = tuple(
        PolygonSide(start=a, end=b, length=Reading(value=n, sigma=0.5)) for a, b, n in ((1, 2, 700.0), (2, 3, 1900.0))
    )
    polygon = restated(Polygon(spans=spans), Provenance.ASSUMED)
    assert [each.length for each in polygon.spans] == [
        Reading(value=n, state=Provenance.ASSUMED) for n in (700.0, 1900.0)
    ]


@pytest.mark.parametrize(
    ("change", "why"),
    [
        (lambda text: text[:200], "line"),
        (lambda text: text.replace('"width_mm"', '"wide"'), "no record of a leaf"),
        (lambda text: text.replace("2026-11-20", "yesterday"), "no record of a leaf"),
        (lambda _text: "[]", "no record of a leaf"),
    ],
)
def test_a_damaged_record_is_refused_with_its_reason(change, why):
    text = job_book.dumps(job_book_entry(signed()))
    assert job_book.loads_entry(text).by == "I. Tarn"
    with pytest.raises(JobFileError, match=why):
        job_book.loads_entry(change(text))


def test_a_document_that_cannot_be_opened_again_says_whose_it_is():
    entry = job_book_entry(signed())
    broken = job_book.loads_entry(job_book.dumps(entry))
    broken.document["leaves"] = []
    with pytest.raises(JobFileError, match=entry.name):
        job_book.start_again(broken)
