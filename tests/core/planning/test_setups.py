"""Saw and planer settings: every planed part once at each machine, alike ones together, the largest first."""

from __future__ import annotations

import csv
import io
from collections import Counter

from oakmeasure.core.document.roles import Role
from oakmeasure.core.edits import job_edits
from oakmeasure.core.planning.setups import Machine, saved, setups
from oakmeasure.core.solver import solve
from oakmeasure.files.tables import lists as tables
from samples import framed, job


def test_two_alike_leaves_share_every_setting():
    made = job_edits.with_new_leaf(job(), "Leaf 2")
    first = made.leaves[0]
    twin = first.model_copy(update={"id": made.leaves[1].id, "name": "Leaf 2"})
    both = solve(made.model_copy(update={"leaves": (first, twin)})).leaves
    found = setups(both)
    together, alone = saved(found)
    assert alone == 2 * together
    fence = next(each for each in found if each.machine is Machine.FENCE and each.size == 97)  # stiles 95, 2 to trim
    assert fence.count == 4
    assert {piece.part.name for piece in fence.pieces} == {"hinge stile", "latch stile"}


def test_every_planed_part_passes_every_machine_once_and_the_largest_comes_first():
    leaf = framed()
    found = setups([leaf])
    wood = Counter(part.name for part in leaf.cut_parts if part.role is not Role.PACKING and not part.at_hand)
    for machine in Machine:
        here = [each for each in found if each.machine is machine]
        assert Counter(piece.part.name for each in here for piece in each.pieces) == wood
        keys = [(each.thickness, each.size) for each in here]
        assert keys == sorted(keys, reverse=True)
        for each in here:
            for piece in each.pieces:
                planed = piece.part.planed
                size = (planed.thickness, planed.width, planed.length)[list(Machine).index(machine)]
                assert abs(size - each.size) < 0.1
                assert machine is Machine.PLANER or abs(planed.thickness - each.thickness) < 0.1


def test_list_by_setting_reads_back_as_the_cut_list(solved_demo):
    solution = solved_demo
    rows = list(csv.DictReader(io.StringIO(tables.settings_csv(solution))))
    cut = list(csv.DictReader(io.StringIO(tables.cut_list_csv(solution))))
    stops = [row for row in rows if row["machine"] == "saw, stop"]
    pieces = {(row["leaf"], row["part"]): row for row in cut}
    assert stops
    for row in stops:
        match = pieces[row["leaf"], row["part"]]
        assert abs(float(match["planed_length_mm"]) - float(row["set_to_mm"])) < 0.1
    assert sum(int(row["of_it"]) for row in stops) <= sum(int(row["pieces"]) for row in cut)
