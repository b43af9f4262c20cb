"""Job files that are damaged, made up or far too large: read, or refused in a line."""

from __future__ import annotations

import json
import random
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.job import MOST_LEAVES, Job
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.solver import solve
from oakmeasure.files.cad.svg import drawing_svg
from oakmeasure.files.job.job_file import JobFileError, dumps, loads
from samples import job

SAMPLES = sorted((Path(__file__).parents[1] / "samples").glob("version-*.oakjob"))
SWAPPED = (None, "x", "", [], {}, -1, 0, 1e308, True, "nan", [None], {"a": 1}, 10**20, 10**400, "²", [[]])
SWAPS = 150
LONGEST = 600  # letters of a refusal


def places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in a document, by the keys and numbers that lead there."""
    inner = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    return [path, *(each for key, below in inner for each in places(below, (*path, key)))]


def swapped(value: Any, path: tuple[Any, ...], other: Any) -> Any:
    """The document with something else at one of its places."""
    if not path:
        return other
    made = dict(value) if isinstance(value, dict) else list(value)
    made[path[0]] = swapped(value[path[0]], path[1:], other)
    return made


def refusal_of(text: str) -> str:
    """What is said of a text that is no job; "" where it is one."""
    try:
        loads(text)
    except JobFileError as refused:
        return str(refused) or "nothing said"
    return ""


def assert_read_or_refused(text: str) -> None:
    said = refusal_of(text)
    assert "\n" not in said
    assert len(said) < LONGEST
    assert said != "nothing said"


@pytest.mark.parametrize("sample", SAMPLES, ids=lambda each: each.stem)
def test_a_value_of_another_kind_anywhere_in_a_file_of_any_version_is_refused_in_a_line(sample):
    document = json.loads(sample.read_text(encoding="utf-8"))
    document["leaves"] = document["leaves"][:2]
    source = random.Random(sample.stem)
    everywhere = places(document)[1:]
    shallow = [each for each in everywhere if len(each) <= 4]
    for _ in range(SWAPS):
        path = source.choice(source.choice((everywhere, shallow)))
        assert_read_or_refused(json.dumps(swapped(document, path, source.choice(SWAPPED))))


def test_far_too_many_entries_are_refused_before_one_of_them_is_looked_at(monkeypatch):
    monkeypatch.setattr(Job, "model_validate", lambda *_: pytest.fail("looked at"))
    many = "[" + ",".join(["{}"] * 200_000) + "]"
    assert str(MOST_LEAVES) in refusal_of(f'{{"schema_version": 8, "name": "a", "leaves": {many}}}')
    for name in ("boards", "own_cups"):
        assert "too large" in refusal_of(f'{{"schema_version": 8, "name": "a", "{name}": {many}}}')
    assert "too large" in refusal_of(f'{{"schema_version": 3, "leaves": [{{"making": {{"log": {many}}}}}]}}')


@pytest.mark.parametrize("digits", [400, 5000])
def test_a_number_without_end_is_refused_in_words(digits):
    text = dumps(job()).replace('"moisture": 10.0', f'"moisture": {"9" * digits}')
    assert "9" * digits in text
    assert_read_or_refused(text)
    with pytest.raises(JobFileError):
        loads(text)
    with pytest.raises(JobFileError):
        loads('{"schema_version": ' + "9" * digits + "}")


def test_names_hold_nothing_that_a_drawing_cannot():
    """Control characters from wherever a name came: an SVG with one of them is no XML."""
    made = job_edits.with_field(job(), "leaf-1", "name", "seed\x00 room\x1b\x9b two\nlines\u202e")
    leaf = solve(made).leaves[0]
    assert leaf.leaf.name == "seed room two lines"
    ElementTree.fromstring(drawing_svg(leaf_view(leaf, Show()), leaf.leaf.name))
    text = dumps(made).replace("seed room two lines", "seed\\u0000 room\\ud800")
    assert loads(text).leaves[0].name == "seed room"
    dumps(loads(text)).encode("utf-8")
