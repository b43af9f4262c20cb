"""What is read from outside, damaged: by mutation of good files and by hypothesis. The bench does 100 000 of them."""

from __future__ import annotations

import functools

from hypothesis import given, settings
from hypothesis import strategies as st

from fuzzing import Outcome, all_seeds, fuzz, targets, try_one

INPUTS = 3000
NAMES = [each.name for each in targets()]


@functools.cache
def by_name():
    return {each.name: each for each in targets()}


def test_good_input_is_read_by_every_target(tmp_path):
    for target, seed in all_seeds():
        if seed and target.name not in ("cutting",):  # whose seeds are of three kinds
            outcome = Outcome()
            try_one(target, seed, tmp_path / f"good{target.suffix}", outcome)
            assert outcome.refused == 0, target.name


def test_mutated_input_is_read_or_refused_in_time_and_writes_nothing(tmp_path):
    outcomes = fuzz(tmp_path, INPUTS, seed=1)
    assert sum(each.inputs for each in outcomes.values()) >= INPUTS * 0.99
    assert sum(each.refused for each in outcomes.values()) > INPUTS / 10
    assert list(tmp_path.iterdir()) == []


WORDS = st.text(max_size=400).map(lambda text: text.encode("utf-8", "replace"))


@settings(max_examples=300)
@given(st.sampled_from(NAMES), st.one_of(st.binary(max_size=400), WORDS), st.floats(0, 1))
def test_any_bytes_put_anywhere_are_read_or_refused(tmp_path_factory, name, more, share):
    target = by_name()[name]
    if name == "dxf" and len(more) % 5:
        return
    seed = target.seeds[0]
    at = round(share * len(seed))
    path = tmp_path_factory.mktemp("any") / f"any{target.suffix}"
    for content in (more, seed[:at] + more + seed[at:]):
        try_one(target, content, path, Outcome())
