"""The pieces as they are played: no wood comes or goes but what a step takes off, and the last step has the leaf."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.drawings.make.bench_lies import lies
from oakmeasure.core.drawings.make.cut_places import cut_places
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.hardware.boring import BoringKind
from oakmeasure.core.making.played import player_of
from oakmeasure.core.paper.stage_sheet import stage_sheet


def test_what_a_step_takes_off_is_what_the_pieces_lose(solved_demo):
    """Volume before = volume after + what is hatched, for every step of every demo leaf and every piece of it."""
    for leaf in solved_demo.leaves:
        play, before = player_of(leaf, leaf.making.operations), {}
        for op in leaf.making.operations:
            played = play.after(op.id)
            now, off = {}, {}
            if not played.is_sawn:
                continue
            for at, piece in enumerate(played.body.pieces):
                if piece.part is None and at not in played.taken_off:
                    continue  # loose tenons have one name and come with what they join
                volumes = off if at in played.taken_off else now
                volumes[piece.name] = volumes.get(piece.name, 0.0) + piece.net.volume
            for name in now.keys() & before.keys():
                lost = before[name] - now[name]
                assert lost == pytest.approx(off.get(name, 0.0), abs=max(20.0, 0.005 * before[name])), (op.id, name)
            before = now


def test_the_last_step_has_the_leaf(solved_demo):
    for leaf in solved_demo.leaves:
        played = player_of(leaf, leaf.making.operations).after(leaf.making.operations[-1].id)
        assert [piece.solids for piece in played.body.pieces][: len(leaf.body.pieces)] == [
            piece.solids for piece in leaf.body.pieces
        ]
        assert played.is_whole
        assert not played.taken_off


def test_what_is_marked_at_the_bench_is_what_the_boring_list_says(solved_demo):
    """On a leaf that has its size, every butt and cup lies as far from its head as the boring list has it."""
    seen = 0
    for leaf in solved_demo.leaves:
        play = player_of(leaf, leaf.making.operations)
        for op in leaf.making.operations:
            cuts = [c for c in leaf.borings if c.name in op.cuts and c.kind in (BoringKind.BUTT, BoringKind.CUP)]
            cuts = [c for c in cuts if c.solid is not None]
            if not cuts or op.hold is None or op.hold.part:
                continue
            places = cut_places(leaf, op, lies(leaf, leaf.build, op), play.after(op.id))
            full = leaf.making.op("plane:even") is not None  # hung before its head is planed
            on = leaf.figures["left_full_end"].value if full else 0.0
            wanted = [(c.from_top + on, c.to + on) for c in sorted(cuts, key=lambda each: each.from_top)]
            assert [(each.near, each.far) for each in places] == [pytest.approx(each, abs=0.01) for each in wanted]
            seen += len(cuts)
    assert seen > 30


def test_mortises_of_a_loose_stile_are_marked_from_its_end_as_it_is(solved_demo):
    leaf = next(each for each in solved_demo.leaves if each.leaf.id == "seed-room")
    op = leaf.making.op("mortise:stiles")
    play = player_of(leaf, leaf.making.operations)
    places = cut_places(leaf, op, lies(leaf, leaf.build, op), play.after(op.id))
    stile = leaf.build.part("hinge stile")
    horn = (stile.planed.length - stile.finished.length) / 2
    tenons = [each for each in leaf.build.tenons if each.into == "hinge stile"]
    top = max(each.rect.y1 for each in tenons)
    assert places[0].near == pytest.approx(leaf.build.height - top + horn)
    assert places[-1].far == pytest.approx(leaf.build.height - min(each.rect.y0 for each in tenons) + horn)


def test_the_strip_on_the_make_sheet_has_every_step_once(solved_demo):
    for leaf_id in ("seed-room", "coal-hole", "meter"):
        leaf = next(each for each in solved_demo.leaves if each.leaf.id == leaf_id)
        sheet = stage_sheet(leaf, Stage.MAKE, Show())
        told = [text.split(" – ") for text in sheet.drawing.texts()]
        steps = [step for ends in told for step in range(int(ends[0]), int(ends[-1]) + 1)]
        assert steps == list(range(1, len(leaf.making.operations) + 1))


def test_the_card_says_where_the_bench_marks_it(solved_demo):
    """What a card says down from the top, or in from the edge, is where the workshop's picture has it."""
    seen = set()
    for leaf in solved_demo.leaves:
        play = player_of(leaf, leaf.making.operations)
        for op in leaf.making.operations:
            how = lies(leaf, leaf.build, op)
            said = {each.label.removesuffix(" as it is"): each.value for each in op.settings}
            wanted = said.get("in from the edge" if op.id == "let-in:gear" else "down from the top")
            if how is None or wanted is None:
                continue
            places = cut_places(leaf, op, how, play.after(op.id))
            long = max(box[3 if how.level else 4] for box in (each.box for each in play.after(op.id).body.pieces))
            marks = {mark for each in places for mark in (each.near, (each.near + each.far) / 2, long - each.far)}
            assert any(mark == pytest.approx(wanted, abs=0.06) for mark in marks), (leaf.leaf.id, op.id, wanted, marks)
            assert all(0 <= each.near < each.far <= long + 0.1 for each in places), (leaf.leaf.id, op.id)
            seen.add(op.id)
    assert seen >= {"mortise:lock", "let-in:gear", "bore:latch", "bore:hangers"}
