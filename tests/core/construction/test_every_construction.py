"""What holds for every construction: defaults, anything asked, remedies that mend, raked and arched heads, stock."""

from __future__ import annotations

from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import FieldRow, Framed
from oakmeasure.core.construction.layered.model import Layered, LayerStyle, Lipping
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document import constructions, field_path
from oakmeasure.core.document.constructions import Construction
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.job import FitChoices, TimberChoices
from oakmeasure.core.document.readings import HeadKind, HeadShape
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.leaf.leaf_view import joints_view, leaf_view
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.drawings.timber.year_view import year_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solver import solve
from samples import assert_sums, codes, job, readings, said, solved


@pytest.mark.parametrize(
    ("build", "code"),
    [
        (Existing(face=22.0), "contradicts-face"),
        (Existing(solid=399.0), "contradicts-solid"),
        (Existing(inside=Inside.PANELLED, panels=6, muntin=110.0), "contradicts-muntin"),
        (Existing(inside=Inside.PANELLED, tenon=120.0), "contradicts-tenon"),
        (Existing(inside=Inside.PANELLED, middle_up=1900.0), "contradicts-middle-up"),
        (Existing(height=700.0, inside=Inside.PANELLED, bottom_rail=420.0), "contradicts-bottom-rail"),
        (Veneered(thickness=16.0, veneer=6.0), "core-thin"),
        (Veneered(moulding=20.0, edging=12.0), "edging-cut"),
        (Veneered(veneer=3.0, thin=2.8), "veneer-short"),
        (Layered(stile=375.0), "panel-width"),
        (Layered(lock_height=250.0), "rails-bottom-rail-middle-rail"),
        (Light(stile=250.0, brace=LightBrace.ONE, brace_width=190.0), "brace-wide"),
    ],
)
def test_leaf_that_contradicts_itself_is_a_stop_mended_by_its_smallest_change(build, code):
    made = job(build=build)
    stop = said(solve(made).leaves[0], code)
    assert stop.level is Level.STOP
    for remedy in stop.remedies[:1]:
        assert remedy.path
        assert code not in codes(solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0], Level.STOP)


KINDS = {each.model_fields["kind"].default: each for each in get_args(get_args(Construction)[0])}


EVERY = (
    Framed(),
    Boarded(),
    Slab(),
    Layered(trim=12.0),
    Layered(style=LayerStyle.FULL, lipping=Lipping.T),
    Light(),
    Light(fill=LightFill.SHEET, brace=LightBrace.CROSSED),
    Veneered(),
    Veneered(form=VeneerForm.FRAMED, muntin=None),
    Existing(),
    Existing(inside=Inside.PANELLED),
    Existing(inside=Inside.SOLID, width=700.0),
)


def test_every_construction_has_its_model_its_module_and_its_name():
    assert set(KINDS) == set(constructions.KINDS)


@pytest.mark.parametrize("kind", list(KINDS))
def test_leaf_of_any_construction_stands_on_its_defaults_with_under_ten_inputs(kind):
    made = job_edits.with_construction(job(), "leaf-1", kind)  # two readings, one choice
    leaf = solve(made).leaves[0]
    assert not codes(leaf, Level.STOP)
    assert leaf.weights.mass.value > 5
    assert leaf.figures["cost"].value > 0
    assert leaf.plan.in_words()
    for name in ("thickness", "mass", "hours", "cost"):
        assert name in leaf.figures
    build, default = leaf.leaf.build, KINDS[kind]()
    changed = [name for name in type(build).model_fields if getattr(build, name) != getattr(default, name)]
    assert changed == (["width", "height"] if kind == "existing" else [])  # the size that is wanted, until measured


def anything(data, model):
    """Return a construction with any of its numbers anywhere in its limits and any of its choices any of its words."""
    build = model()
    for name in model.model_fields:
        value = getattr(build, name)
        if name == "kind" or not data.draw(st.booleans()):
            continue
        if isinstance(value, bool):
            build = field_path.with_value(build, name, not value)
        elif hasattr(type(value), "__members__"):
            build = field_path.with_value(build, name, data.draw(st.sampled_from(list(type(value)))))
        elif isinstance(value, float):
            try:
                build = field_path.with_value(build, name, value * data.draw(st.floats(0.3, 3.0)))
            except InputError:
                continue
    return build


@given(st.sampled_from(list(KINDS)), st.data(), st.floats(420, 1100), st.floats(600, 2400))
@settings(max_examples=100)
def test_whatever_a_construction_is_given_it_answers_and_its_sums_add_up(kind, data, width, height):
    build = anything(data, KINDS[kind])
    leaf = solve(job(width, height, build=build)).leaves[0]
    assert leaf.checks
    for stage in Stage:
        assert leaf.key_figure(stage, Show())
    assert leaf_view(leaf, Show()).shapes
    assert joints_view(leaf, Show()).shapes
    assert ways_view(leaf, Show()).shapes
    assert_sums(leaf)
    if leaf.build is None or any(each.stage is Stage.LEAF for each in leaf.open_stops()):
        return
    box = Rect(-1e-6, -1e-6, leaf.build.width + 1e-6, leaf.build.height + 1e-6)
    for each in leaf.build.parts:
        face = each.face
        assert box.x0 <= face.x0 <= face.x1 <= box.x1, (each.name, build)
        assert box.y0 <= face.y0 <= face.y1 <= box.y1, (each.name, build)
        assert min(each.finished.length, each.finished.width, each.finished.thickness) > 0
        assert each.length.value == pytest.approx(each.finished.length, abs=0.01), each.name
        for small, large in ((each.finished, each.planed), (each.planed, each.rough)):
            assert small.length <= large.length + 1e-6, each.name
            assert small.width <= large.width + 1e-6, each.name


@given(st.sampled_from(list(KINDS)), st.data(), st.floats(500, 1000), st.floats(900, 2300))
@settings(max_examples=50)
def test_every_remedy_of_every_construction_can_be_taken_and_mends_its_stop(kind, data, width, height):
    build = anything(data, KINDS[kind])
    made = job(width, height, build=build)
    for check in solve(made).leaves[0].checks:
        assert check.level is Level.OK or check.remedies, check.code
        for remedy in (each for each in check.remedies if each.path and check.stage is Stage.LEAF):
            mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
            assert check.level is not Level.STOP or check.code not in codes(mended, Level.STOP), (
                check.title,
                remedy.text,
            )


RAKED = {
    "readings": readings(
        width_top=580.0,
        width_bottom=580.0,
        height_hinge=640.0,
        height_latch=848.0,
        diagonal_rising=1027.5,
        diagonal_falling=864.0,
    ),
    "head": HeadShape(kind=HeadKind.RAKED),
    "hanging": Hanging.INSET_BUTTS,
    "fit": FitChoices(shape=LeafShape.SCRIBED),
}


SMALL = (
    Layered(stile=60.0, top_rail=60.0, middle_rail=None, bottom_rail=70.0),
    Layered(style=LayerStyle.FULL),
    Light(stile=50.0, top_rail=50.0, bottom_rail=60.0),
    Veneered(thickness=20.0),
    Veneered(
        form=VeneerForm.FRAMED,
        thickness=22.0,
        stile=60.0,
        top_rail=60.0,
        middle_rail=None,
        bottom_rail=65.0,
        muntin=None,
    ),
    Existing(
        width=590.0,
        height=870.0,
        inside=Inside.PANELLED,
        stile=62.0,
        tenon=36.0,
        top_rail=62.0,
        middle_rail=None,
        panels=1,
    ),
    Existing(width=590.0, height=870.0, inside=Inside.SOLID),
)


@pytest.mark.parametrize("build", SMALL, ids=lambda each: f"{each.kind}-{getattr(each, 'form', '')}")
def test_raked_outline_cuts_every_layer_and_nothing_stands_out(build):
    leaf = solved(build=build, **RAKED)
    outline = Polygon(leaf.fit.outline)
    assert all(outline.buffer(0.6).contains(Polygon(each.corners)) for each in leaf.build.parts)
    covered = unary_union([Polygon(each.corners) for each in leaf.build.parts]).area
    assert covered == pytest.approx(outline.area, rel=0.002)
    assert leaf.figures["mass"].value > 0
    assert leaf_view(leaf, Show()).shapes


def test_new_wood_is_cut_from_boards_sheets_from_sheets_and_old_wood_from_nothing():
    for build in EVERY:
        leaf = solved(build=build)
        cut = {piece.piece.part for group in leaf.plan.groups for board in group.plan.boards for piece in board.pieces}
        for each in leaf.build.parts:
            made_of = getattr(stuff(each.species), "moist", None)
            if each.at_hand or made_of == "":
                assert each.name not in cut
            else:
                assert each.name in cut, (build.kind, each.name)
    assert solved(build=Layered(), timber=TimberChoices(finish="varnish")).plan.sheets == 2


CUPBOARD = Framed(
    thickness=20.0,
    stile=60.0,
    top_rail=60.0,
    middle_rail=None,
    bottom_rail=65.0,
    muntin=None,
    panel_thickness=6.0,
    groove_depth=8.0,
)


@pytest.mark.parametrize(
    "build",
    [
        CUPBOARD,
        CUPBOARD.model_copy(update={"rows": (FieldRow(columns=2),), "muntin": 40.0}),
        Boarded(board_thickness=16.0, ledge_top=260.0, ledge_width=80.0),
        Slab(thickness=22.0, stiffener_end=270.0),
    ],
    ids=["framed", "two columns", "boarded", "slab"],
)
def test_raked_leaf_of_every_construction_is_cut_to_its_outline_and_nothing_stands_out(build):
    leaf = solved(build=build, **RAKED)
    outline = Polygon(leaf.fit.outline)
    made = [part for part in leaf.build.parts if part.role not in (Role.LEDGE, Role.BRACE, Role.STIFFENER)]
    covered = unary_union([Polygon(part.corners) for part in made]).area
    between = leaf.figures["board_gap"].value * outline.bounds[3] * 8 if "board_gap" in leaf.figures else 0.0
    assert covered == pytest.approx(outline.area, abs=1.0 + between)
    assert all(outline.buffer(1e-6).contains(Polygon(part.corners)) for part in leaf.build.parts)
    uprights = [part for part in made if part.role in (Role.STILE, Role.BOARD, Role.STRIP)]
    lengths = [part.finished.length for part in sorted(uprights, key=lambda each: each.face.x0)]
    assert lengths == sorted(lengths)  # shortest at the low side
    assert lengths[-1] - lengths[0] > 100
    assert leaf.butts.places[0].rect.y1 < leaf.figures["hinge_edge_height"].value
    assert leaf_view(leaf, Show()).shapes
    square = solved(build=build, **(RAKED | {"fit": FitChoices()}))
    assert square.weights.mass.value < leaf.weights.mass.value  # the square leaf ends under the low side


@pytest.mark.parametrize("kind", [HeadKind.SEGMENTAL, HeadKind.HALF_ROUND, HeadKind.TWO_CENTRED])
@pytest.mark.parametrize(
    "build",
    [
        Framed(),
        Boarded(ledge_top=600.0),
        Slab(stiffener_end=600.0),
        Layered(),
        Light(),
        Veneered(),
        Existing(width=740.0, height=2600.0, inside=Inside.SOLID),
    ],
    ids=lambda each: each.kind,
)
def test_leaf_under_an_arch_is_cut_to_it_whatever_it_is_built_of(kind, build):
    crown = {HeadKind.SEGMENTAL: 2058, HeadKind.HALF_ROUND: 2380, HeadKind.TWO_CENTRED: 2500}[kind]
    sides = {"width_top": 720, "width_bottom": 720, "height_hinge": 2020, "height_latch": 2020}
    leaf = solved(
        readings=readings(**sides, height_middle=crown),
        head=HeadShape(kind=kind),
        build=build,
        fit=FitChoices(shape=LeafShape.SCRIBED),
    )
    outline = Polygon(leaf.fit.outline)
    assert all(outline.buffer(0.01).contains(Polygon(part.corners)) for part in leaf.build.parts)
    covered = unary_union([Polygon(part.corners) for part in leaf.build.parts]).area
    assert covered == pytest.approx(outline.area, rel=0.01)
    assert leaf.fit.height.value > 2020
    assert said(leaf, "outline").sentence
    assert leaf_view(leaf, Show()).shapes
    assert year_view(leaf, Show()).shapes
