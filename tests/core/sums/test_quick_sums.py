"""Quick sums: every option is read and refused by its name, results agree with one another, drawings show them."""

from __future__ import annotations

import contextlib
import io
import itertools
import json
import subprocess
import sys

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from oakmeasure.cli.quick_sum import run
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.drawings.drawing import Dimension, Label
from oakmeasure.core.drawings.sums.sum_view import VIEWS, sum_view
from oakmeasure.core.sums.examples import EXAMPLES, start
from oakmeasure.core.sums.quick import answer, read
from oakmeasure.core.sums.registry import SUMS, find, sum_named
from samples import solved

NAMES = list(SUMS)


PLAIN = {Unit.MM, Unit.DEG, Unit.KG, Unit.N, Unit.PERCENT, Unit.COUNT}


def example(name):
    return {key: [str(each) for each in values] for key, values in start(SUMS[name]).items()}


def _written(value):
    return f"{value:.9f}" if isinstance(value, float) else str(value)


def work(name, **more):
    texts = example(name) | {key.replace("_", "-"): [_written(value)] for key, value in more.items()}
    return answer(SUMS[name], read(SUMS[name], texts)).values()


@pytest.mark.parametrize("name", NAMES)
def test_a_sum_answers_with_all_its_figures_and_its_working_ends_in_each(name):
    which = SUMS[name]
    found = answer(which, read(which, example(name)))
    show = Show()
    assert tuple(each.name for each in found.gives) == which.gives
    assert {each.unit for each in found.gives} <= PLAIN
    lines = found.working(show)
    for figure in found.gives:
        assert f"{figure.label}: = {show.value(figure.value, figure.unit)}" in lines
    assert json.loads(json.dumps(found.record(show)))["sum"] == name


@pytest.mark.parametrize("name", NAMES)
def test_options_in_inches_give_the_same_as_in_millimetres(name):
    which = SUMS[name]
    values = read(which, example(name))
    inches = {
        option.name: [f'{each / 25.4!r}"' for each in (value if isinstance(value, tuple) else (value,))]
        if option.unit is Unit.MM
        else example(name)[option.name]
        for option in which.options
        if (value := values.get(option.name)) is not None
    }
    first, second = answer(which, values).values(), answer(which, read(which, inches)).values()
    assert second == pytest.approx(first, rel=1e-6, abs=1e-6)


@pytest.mark.parametrize("name", NAMES)
def test_every_option_left_out_or_written_badly_is_refused_by_its_name(name):
    which = SUMS[name]
    for option in which.options:
        texts = example(name)
        for bad in ("rubbish", "7/0", "1e9", "1,200.5"):
            with pytest.raises(InputError) as refused:
                read(which, texts | {option.name: [bad]})
            assert refused.value.field == option.name
        if option.unit is Unit.MM and option.low == 0:
            with pytest.raises(InputError) as refused:
                read(which, texts | {option.name: ["-5"]})
            assert refused.value.field == option.name
        if option.needed and option.default is None:
            with pytest.raises(InputError) as refused:
                read(which, {key: value for key, value in texts.items() if key != option.name})
            assert refused.value.field == option.name
            assert option.label in str(refused.value) or option.unit is None
        if option.over_zero:
            with pytest.raises(InputError) as refused:
                answer(which, read(which, texts | {option.name: ["0"]}))
            assert refused.value.field == option.name


@pytest.mark.parametrize("name", NAMES)
def test_a_sum_is_drawn_with_what_it_gives_and_to_scale(name):
    which = SUMS[name]
    found = answer(which, read(which, example(name)))
    show = Show()
    drawing = sum_view(found, show)
    shown = " ".join(drawing.texts())
    for figure in found.gives:
        if figure.unit is Unit.COUNT and name != "veneer-yield":
            continue  # boards and panels are counted on the drawing
        text = show.length(figure.value) if figure.unit is Unit.MM else show.value(figure.value, figure.unit)
        if name != "reduce-split":
            assert text in shown, (figure.name, shown)
    assert all(isinstance(each, Label | Dimension) or each.points for each in drawing.shapes)
    assert set(VIEWS) == set(SUMS) == set(EXAMPLES)
    if name not in ("emc", "movement", "cup-reach"):  # their dimensions are no lengths to scale
        for shape in drawing.shapes:
            if isinstance(shape, Dimension) and found.figures[shape.figure].unit is Unit.MM:
                long = ((shape.end[0] - shape.start[0]) ** 2 + (shape.end[1] - shape.start[1]) ** 2) ** 0.5
                assert long == pytest.approx(abs(found.figures[shape.figure].value), abs=1e-6)


@given(st.floats(400, 1500), st.floats(0, 8), st.floats(0, 8), st.floats(0, 8))
def test_leaves_and_gaps_fill_the_opening(width, hinge, latch, meeting):
    gaps = {"gap_hinge": hinge, "gap_latch": latch, "gap_meeting": meeting}
    one = work("leaf-size", opening_width=width, **gaps)["leaf_width"]
    two = work("leaf-size", opening_width=width, leaves=2, **gaps)["leaf_width"]
    assert one + hinge + latch == pytest.approx(width)
    assert 2 * two + 2 * hinge + meeting == pytest.approx(width)


@given(st.floats(-4, 20), st.floats(9, 14), st.sampled_from([0, 9, 18]), st.floats(0, 6))
def test_boring_and_reach_of_a_cup_undo_each_other(overlay, reach, crank, plate):
    boring = work("cup-boring", overlay=overlay, reach=reach, crank=crank, plate=plate)["boring_distance"]
    assume(-40 <= boring <= 80)
    assert work("cup-reach", overlay=overlay, boring=boring, crank=crank, plate=plate)["reach"] == pytest.approx(reach)


@given(st.floats(300, 1200), st.lists(st.floats(60, 160), min_size=1, max_size=6))
def test_the_last_board_makes_the_leaf_whole(width, laid):
    assume(sum(laid) < width - 1)
    which = SUMS["last-rip"]
    found = answer(which, {"leaf-width": width, "laid": tuple(laid)})
    assert sum(laid) + found.figures["last_rip"].value == pytest.approx(width)
    assert f"board {len(laid)}, as laid: − {Show().length(laid[-1])} mm" in found.working(Show())


@given(st.integers(600, 900), st.integers(0, 120), st.integers(0, 30), st.integers(1, 6))
def test_stiles_panels_and_what_is_left_over_make_the_whole_reduction(width, off, stile, panels):
    assume(2 * stile <= off)
    found = work("reduce-split", from_width=width, to_width=width - off, stile_cut=stile, panels=panels)
    assert 2 * stile + panels * found["per_panel"] + found["left_over"] == pytest.approx(off)
    assert 0 <= found["left_over"] < panels


@given(st.floats(10, 80), st.floats(1, 8), st.floats(0, 3))
def test_one_veneer_more_would_not_come_out_of_the_board(thick, veneer, kerf):
    count = work("veneer-yield", board_thickness=thick, veneer=veneer, kerf=kerf)["leaves"]
    assert count * veneer + (count - 1) * kerf <= thick + 1e-6 or count == 0
    assert (count + 1) * veneer + count * kerf > thick - 1e-6


def test_wood_that_dries_shrinks_and_radial_less_than_tangential():
    along = work("movement", from_mc=14, to_mc=8)["change"]
    assert along < 0
    assert along < work("movement", from_mc=14, to_mc=8, cut="radial")["change"] < 0
    assert work("movement", from_mc=8, to_mc=14)["change"] > 0


def test_sheets_and_species_weigh_and_a_sheet_holds_no_screw():
    heavy = work("weight", species="mdf", moisture=8)["mass"]
    assert heavy == pytest.approx(work("weight", species="MDF", moisture=25)["mass"])
    assert (
        work("weight", species="Red oak", moisture=20)["mass"] > work("weight", species="red-oak", moisture=8)["mass"]
    )
    with pytest.raises(InputError) as refused:
        work("screw-hold", species="mdf")
    assert refused.value.field == "species"


@pytest.mark.parametrize(
    ("name", "given", "field"),
    [
        ("leaf-size", {"opening_width": 4}, "opening-width"),
        ("leaf-size", {"leaves": 3}, "leaves"),
        ("leaf-size", {"leaves": 1.5}, "leaves"),
        ("arch", {"rise": 600}, "rise"),
        ("square", {"diagonal": 90}, "diagonal"),
        ("brace", {"brace_width": 700}, "brace-width"),
        ("board-layout", {"cover": 5}, "cover"),
        ("bypass", {"tracks": 1, "overlap_centre": 40, "roller_width": 50}, "overlap-centre"),
        ("bypass", {"overlap_centre": 2500}, "overlap-centre"),
        ("butt-mortise", {"gap": 7}, "gap"),
        ("emc", {"humidity": 99}, "humidity"),
        ("movement", {"to_mc": 40}, "to-mc"),
        ("movement", {"cut": "sideways"}, "cut"),
        ("groove-spacing", {"band": 400}, "band"),
        ("groove-spacing", {"grooves": 1}, "grooves"),
        ("lining", {"thickness": 500}, "thickness"),
        ("last-rip", {"laid": 900}, "laid"),
        ("hinge-transfer", {"from_bottom": 1900}, "from-bottom"),
        ("reduce-split", {"stile_cut": 40}, "stile-cut"),
        ("tenon-panel", {"tenon": 99}, "tenon"),
        ("tenon-panel", {"room": 30}, "room"),
        ("tenon-panel", {"stile": 500}, "stile"),
        ("screw-hold", {"specific_gravity": 2}, "specific-gravity"),
    ],
)
def test_what_makes_no_sense_is_refused_where_it_was_made(name, given, field):
    with pytest.raises(InputError) as refused:
        work(name, **given)
    assert refused.value.field == field


def test_a_stack_that_no_screw_can_hold_says_so():
    which = SUMS["screw-stack"]
    found = answer(which, read(which, example("screw-stack") | {"depth-limit": ["40"]}))
    assert "no screw does both" in found.working(Show())
    short = {key: value for key, value in example("screw-stack").items() if key != "depth-limit"}
    assert [each.name for each in answer(which, read(which, short)).gives] == ["least_length"]


def test_sums_are_found_by_the_words_that_a_joiner_would_say():
    for words, name in (
        ("cup", "cup-boring"),
        ("brace angle", "brace"),
        ("pull", "hinge-pull"),
        ("EMC", "emc"),
        ("overlap track", "sliding-leaf"),
        ("weigh", "weight"),
        ("last", "last-rip"),
    ):
        assert name in [each.name for each in find(words)], words
    assert find("nothing of this kind") == []
    assert len(find("")) == len(SUMS) == 24
    with pytest.raises(InputError):
        sum_named("door")


def test_a_sum_starts_with_the_figures_of_the_leaf_in_hand():
    leaf = solved()
    said = start(SUMS["leaf-size"], leaf.figures)
    assert said["opening-width"] == [leaf.figures["clear_width"].value]
    found = answer(SUMS["leaf-size"], {key: float(values[0]) for key, values in said.items()}).values()
    assert found["leaf_width"] == pytest.approx(leaf.fit.width.value)
    assert found["leaf_height"] == pytest.approx(leaf.fit.height.value)


def test_the_command_answers_in_words_and_in_json(capsys):
    assert run(["cup-boring", "--overlay", "16", "--reach=11", "--json"]) == 0
    record = json.loads(capsys.readouterr().out)
    assert record["figures"]["centre_from_edge"] == {"value": 22.5, "unit": "mm"}
    assert record["sum"] == "cup-boring"
    assert run(["cup-boring", "--overlay", "-2mm", "--reach", "12", "--crank", "18"]) == 0
    assert capsys.readouterr().out.startswith("leaf's edge to the cup: 4 mm\n")
    assert run(["last-rip", "--leaf-width", "900", "--laid", "200", "--laid", "210", "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["figures"]["last_rip"]["value"] == 490
    assert run(["leaf-size", "--opening-width", "30", "--opening-height", "80", "--inch", "--gap-hinge", "1/8"]) == 0
    assert '29 3/4"' in capsys.readouterr().out


def test_the_list_names_every_sum_with_its_options_and_figures(capsys):
    assert run(["--list"]) == 0
    said = capsys.readouterr().out
    for which in SUMS.values():
        assert f"\n{which.name}: " in f"\n{said}"
        assert all(f"--{option.name}" in said for option in which.options)
    assert run(["brace", "--help"]) == 0
    assert "--brace-width" in capsys.readouterr().out
    assert run([]) == 2


@pytest.mark.parametrize(
    ("words", "names"),
    [
        (["door"], "no sum door:"),
        (["brace", "--width", "600", "--height", "x", "--brace-width", "90"], "--height"),
        (["brace", "--width", "600", "--height"], "--height"),
        (["brace", "--width", "600", "--height", ""], "--height"),
        (["brace", "--width", "600", "--depth", "5"], "--depth"),
        (["brace", "600", "700"], "--width"),
        (["brace", "--width", "600"], "--height"),
        (["brace", "--width", "600", "--width", "610", "--height", "5", "--brace-width", "9"], "--width"),
        (["movement", "--species", "plastic", "--width", "90", "--from-mc", "9", "--to-mc", "12"], "--species"),
        (["weight", "--length", "90", "--width", "9", "--thickness", "12"], "--species"),
    ],
)
def test_the_command_refuses_in_one_line_that_names_the_option(capsys, words, names):
    assert run(words) == 2
    said = capsys.readouterr()
    assert said.out == ""
    assert len(said.err.strip().splitlines()) == 1
    assert f"oak-measure sum: {names}" in said.err


TYPED = [
    "--width",
    "--height",
    "--json",
    "--inch",
    "--overlay",
    "--species",
    "--",
    "-5",
    "7'",
    "0",
    "1e9",
    "½",
    "600",
    "--laid=3",
    "--list",
    "nan",
    "=",
    "−2",
]


WORDS = st.sampled_from([*TYPED, "", "red oak"])


@given(st.sampled_from(NAMES), st.lists(WORDS, max_size=6))
def test_whatever_is_typed_gives_an_answer_or_one_line_never_a_traceback(name, words):
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        status = run([name, *words])
    assert status in (0, 2)
    assert bool(out.getvalue()) is (status == 0)
    assert len(err.getvalue().strip().splitlines()) == (1 if status else 0)


def test_the_command_loads_neither_window_nor_models_nor_scipy():
    words = list(itertools.chain.from_iterable((f"--{name}", text[0]) for name, text in example("weight").items()))
    code = (
        "import sys; from oakmeasure.cli.main import main; sys.argv = ['oak-measure', 'sum', 'weight', *sys.argv[1:]]\n"
        "try: main()\n"
        "except SystemExit as left: status = left.code\n"
        "heavy = {'PySide6', 'scipy', 'numpy', 'pydantic', 'typer', 'shapely'} & set(sys.modules)\n"
        "sys.exit(status or (9 if heavy else 0))"
    )
    done = subprocess.run([sys.executable, "-c", code, *words], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    assert done.stdout.startswith("mass: ")


def test_a_refusal_in_an_inch_job_is_in_inches(capsys):
    assert (
        run(
            [
                "tenon-panel",
                "--leaf-width",
                "30",
                "--stile",
                "4",
                "--groove",
                "1/4",
                "--room",
                "1",
                "--tenon",
                "2",
                "--inch",
            ]
        )
        == 2
    )
    said = capsys.readouterr().err
    assert '--room 1": needs at most the groove, 1/4"' in said
    assert "mm" not in said


def test_inches_are_shown_where_they_are_asked_for():
    which = SUMS["arch"]
    found = answer(which, read(which, {"span": ["32"], "rise": ["5"]}, UnitSystem.INCH))
    assert found.figures["span"].value == pytest.approx(32 * 25.4)
    assert any('"' in line for line in found.working(Show(UnitSystem.INCH)))
