"""A leaf's body against its laws, against volumes worked out apart by Shapely, and against doors worked by hand."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from body_laws import laws, random_leaf, solid_slabs, unlike_its_mirror
from oakmeasure.core.base.geometry import field_grown
from oakmeasure.core.base.prism_sums import less, net
from oakmeasure.core.base.prisms import block, bore
from oakmeasure.core.base.units import IN_MM
from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill, TenonKind
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light, LightFill
from oakmeasure.core.construction.slab.model import Slab, SlabJoint, Stiffener
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import FitChoices, HeadShape, LeafShape, TimberChoices
from oakmeasure.core.document.readings import HeadKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring_rows import boring_row
from oakmeasure.core.solver import solve_leaf
from samples import job, readings, solved


def test_every_demo_leaf_is_a_body(solved_demo):
    for leaf in solved_demo.leaves:
        assert laws(leaf) == [], leaf.leaf.name


def test_any_construction_hung_any_way_under_any_head_is_a_body(demo):
    """A sample of them; the bench has two thousand."""
    source = random.Random(17)
    for _ in range(80):
        leaf = random_leaf(demo, source)
        assert laws(solve_leaf(demo, leaf)) == [], (leaf.name, leaf.build.kind, leaf.hanging, leaf.head.kind)


def test_a_leaf_hung_on_the_other_side_is_its_mirror_image(demo):
    source = random.Random(9)
    leaves = [each for each in demo.leaves if each.old_frame is None]  # an old frame has its recesses on one side
    for leaf in (*leaves, *(random_leaf(demo, source) for _ in range(20))):
        assert unlike_its_mirror(demo, leaf.model_copy(update={"old_frame": None})) == [], leaf.name


def test_volumes_and_middles_are_those_of_their_slabs(demo, solved_demo):
    """Against Shapely, sixty leaves: each piece cut into slabs, their areas and centroids summed."""
    source = random.Random(60)
    any_leaf = (solve_leaf(demo, random_leaf(demo, source)) for _ in range(60 - len(solved_demo.leaves)))
    for leaf in (*solved_demo.leaves, *any_leaf):
        if leaf.body is None:
            continue
        for piece in leaf.body.bare.pieces:
            part = piece.part
            if part is not None and (part.sloped or part.share != 1.0):
                continue
            slabs = solid_slabs(piece)
            volume = sum(area.area * (z1 - z0) for z0, z1, area in slabs)
            assert piece.net.volume == pytest.approx(volume, rel=1e-6), piece.name
            up = sum(area.centroid.y * area.area * (z1 - z0) for z0, z1, area in slabs) / volume
            deep = sum((z0 + z1) / 2 * area.area * (z1 - z0) for z0, z1, area in slabs) / volume
            assert piece.net.middle[1:] == pytest.approx((up, deep), abs=0.01), piece.name


blocks = st.tuples(*(st.floats(0, 100) for _ in range(6))).map(lambda v: block(v[0], v[1], v[2], v[3], (v[4], v[5])))


@given(st.lists(blocks, min_size=1, max_size=3), st.lists(blocks, max_size=3))
def test_blocks_are_summed_as_any_other_prisms_are(solids, cuts):
    """A hole far away makes the same sum go by areas instead of by cells."""
    far = bore(1e4, 1e4, 1.0, (0.0, 100.0))
    quick, slow = net(solids, cuts), net(solids, [*cuts, far])
    assert quick.volume == pytest.approx(slow.volume, rel=1e-6, abs=1e-3)
    if quick.volume > 1.0:
        assert quick.middle == pytest.approx(slow.middle, abs=1e-3)


@given(st.lists(st.tuples(st.floats(0, 50), st.floats(0, 50)).map(sorted).map(tuple), max_size=4), st.floats(0, 50))
def test_what_is_left_of_a_span_lies_in_it_and_outside_of_what_is_taken(cuts, end):
    left = less([(0.0, end)], cuts)
    for low, high in left:
        assert 0 <= low < high <= end
        assert all(high <= a + 1e-9 or low >= b - 1e-9 or a == b for a, b in cuts)


def test_a_field_under_a_rake_grows_square_to_the_rake():
    """[G] 3-4-5: a rake that rises 3 in 4, moved 4 square to itself, is 5 higher plumb; 2 further out 1.5 more."""
    grown = field_grown([(0, 0), (40, 0), (40, 80), (0, 50)], 2, 4)
    assert [x for x, _ in grown] == pytest.approx([-2, 42, 42, -2])
    assert [y for _, y in grown] == pytest.approx([-4, -4, 80 + 5 + 1.5, 50 + 5 - 1.5])


# --- how thick it is, and where -------------------------------------------------------------------------------


def light(frame: float, fill: float, **more):
    return solved(
        400.0,
        700.0,
        hanging=Hanging.INSET,
        build=Light(frame_thickness=frame, fill_thickness=fill, fill=LightFill.SHEET, stile=70.0),
        **more,
    )


def test_a_light_frame_is_as_thick_as_with_the_sheet_on_its_back():
    """Frame 12 and sheet 12 hang as a slab of 24 does: plates 37 + 24 back, stop 24, 24 less the cup under it."""
    leaf, slab = light(12.0, 12.0), solved(400.0, 700.0, hanging=Hanging.INSET, build=Slab(thickness=24.0))
    for name, value in (("plate_back", 61.0), ("stop_back", 24.0), ("cup_left", 24.0 - 11.5 - 2.5)):
        assert leaf.figures[name].value == slab.figures[name].value == pytest.approx(value), name
    assert leaf.figures["cup_reveal"].value == slab.figures["cup_reveal"].value > 2
    cup = next(each for each in leaf.borings if each.name == "cup 1")
    assert (cup.part, cup.solid.depth) == ("back sheet", (24.0 - 11.5, 24.0))


def test_what_slides_counts_all_of_a_light_frame_too():
    """19 and 19: cheeks 38 + 6 apart, bolts through 38, a set for 35 to 45 takes it."""
    build = Light(frame_thickness=19.0, fill_thickness=19.0, fill=LightFill.SHEET)
    leaf = solved(900.0, 2000.0, hanging=Hanging.SLIDING, build=build)
    assert leaf.figures["thickness"].value == 38.0
    bolts = [each for each in leaf.borings if each.name.startswith("hanger")]
    assert bolts
    assert max(each.depth for each in bolts) == 38.0 == leaf.figures["bolt_through"].value
    assert all(each.depth == each.solid.depth[1] - each.solid.depth[0] for each in bolts)


def test_a_bolt_through_a_strip_and_its_ledge_is_as_deep_in_the_list_as_in_the_wood():
    build = Slab(
        thickness=22.0, stiffener=Stiffener.NAILED, stiffener_thickness=22.0, stiffener_width=200.0, stiffener_end=110.0
    )
    leaf = solved(900.0, 2000.0, hanging=Hanging.SLIDING, build=build)
    bolts = [each for each in leaf.borings if each.name.startswith("hanger")]
    assert {each.depth for each in bolts} == {44.0}
    assert leaf.figures["bolt_through"].value == 44.0
    assert leaf.body.thickness_along("hinge") == 22.0


def test_the_drill_meets_what_lies_there():
    leaf = solved(build=Boarded(style=BoardedStyle.Z))
    body, ledge = leaf.body, leaf.build.part("lower ledge").face
    x, y = (ledge.x0 + ledge.x1) / 2, (ledge.y0 + ledge.y1) / 2
    assert [each.piece.name.rstrip(" 0123456789") for each in body.through(x, y)] == ["board", "lower ledge"]
    assert body.span_at(x, y) == (0.0, leaf.leaf.build.thickness)
    assert body.thickness_at(5.0, 5.0) == leaf.leaf.build.board_thickness


# --- what it weighs -------------------------------------------------------------------------------------------


def test_an_old_leaf_weighs_and_moves_as_what_it_is_made_of():
    """Redwood 775 × 2052 × 40 at 12 %: 0.0636 m³ of 504 kg; as oak it would be 44; ply moves a tenth of oak."""

    def old(material: str):
        build = Existing(width=775.0, height=2052.0, thickness=40.0, inside=Inside.SOLID, material=material)
        return solved(780.0, 2060.0, build=build, timber=TimberChoices(moisture=12.0))

    redwood, ply = old("redwood"), old("ply_birch")
    size = redwood.fit.width.value * redwood.fit.height.value * 40 / 1e9
    assert redwood.figures["mass"].value == pytest.approx(size * 504, rel=0.002)
    assert ply.figures["mass"].value == pytest.approx(size * 680, rel=1e-6)
    assert 0 < ply.figures["leaf_change_wet"].value < 0.2 * redwood.figures["leaf_change_wet"].value


@pytest.mark.parametrize("joint", [SlabJoint.TENONS, SlabJoint.DOWELS])
def test_loose_tenons_fill_what_was_cut_for_them(joint):
    glued = solved(build=Slab(joint=SlabJoint.GLUED, stiffener=Stiffener.NONE))
    joined = solved(build=Slab(joint=joint, stiffener=Stiffener.NONE))
    assert joined.figures["mass"].value == pytest.approx(glued.figures["mass"].value)


def test_loose_tenons_of_a_frame_make_it_no_lighter():
    whole = solved(build=Framed(tenon=TenonKind.LOOSE, muntin=None, middle_rail=None))
    bare = solved(build=Framed(tenon=TenonKind.POCKET, muntin=None, middle_rail=None))
    assert whole.figures["mass"].value == pytest.approx(bare.figures["mass"].value)


def test_a_dado_and_a_rebate_weigh_nothing():
    leaf = solved(build=Slab(thickness=40.0, dado=8.0, stiffener=Stiffener.DADOES))
    rho, f = leaf.figures["density"].value / 1e9, leaf.figures
    battens = [each for each in leaf.build.parts if each.name.startswith("batten")]
    stands_out = sum(each.face.width * each.face.height * (each.finished.thickness - 8.0) for each in battens)
    whole = leaf.build.width * leaf.build.height * 40.0
    assert f["mass"].value == pytest.approx((whole + stands_out) * rho)


def test_a_raised_panel_weighs_what_two_frustums_and_a_slab_do():
    leaf = solved(build=Framed(rows=(FieldRow(infill=Infill.RAISED),), field_thickness=20.0))
    panel, choice = leaf.build.part("panel"), leaf.leaf.build
    long, wide, by = panel.finished.length, panel.finished.width, choice.fielding
    inner, half = (long - 2 * by) * (wide - 2 * by), (20.0 - choice.panel_thickness) / 2
    frustum = half / 3 * (long * wide + inner + (long * wide * inner) ** 0.5)
    middle = half / 6 * (long * wide + 4 * (long - by) * (wide - by) + inner)  # a wedge round it, no pyramid: Simpson
    piece = next(each for each in leaf.body.pieces if each.name == "panel")
    assert piece.net.volume == pytest.approx(long * wide * choice.panel_thickness + 2 * middle)
    assert piece.net.volume == pytest.approx(long * wide * choice.panel_thickness + 2 * frustum, rel=0.001)


# --- under a rake and under an arch -----------------------------------------------------------------------------

RAKED = {
    "readings": readings(width_top=930.0, width_bottom=930.0, height_hinge=1742.0, height_latch=2352.0),
    "fit": FitChoices(shape=LeafShape.SCRIBED),
}


@pytest.mark.parametrize(("build", "long"), [(Framed(), 1047), (Light(), 985), (Layered(), 891)])
def test_a_raked_top_rail_is_as_long_as_its_slanting_ends_need(build, long):
    """[G] 930 wide, 1742 to 2352: between shoulders ÷ cos of the rake + width × tan, and the tenons level."""
    leaf = solved(head=HeadShape(kind=HeadKind.RAKED), build=build, **RAKED)
    rails = [each for each in leaf.build.parts if each.name.startswith("top rail")]
    assert {round(each.finished.length) for each in rails} == {long}
    assert laws(leaf) == []


def test_muntins_under_an_arched_rail_end_at_the_arch():
    """Rise 120, four columns: the outer muntins end where the arch is over them, the middle one at its crown."""
    leaf = solved(build=Framed(rows=(FieldRow(columns=4),), muntin=40.0, arch_rise=120.0))
    assert laws(leaf) == []
    arch = leaf.build.part("top rail").shape
    for number in (1, 2, 3):
        muntin, stub = leaf.build.part(f"muntin {number}"), leaf.figures["rule_muntin_tenon"].value
        over = [y for x, y in arch if muntin.face.x0 <= x <= muntin.face.x1 and y < leaf.build.height - 1]
        assert muntin.finished.length == pytest.approx(max(over) - muntin.face.y0 + 2 * stub, abs=6.0)
        assert muntin.shape
    assert leaf.build.part("muntin 1").finished.length < leaf.build.part("muntin 2").finished.length - 20


def test_no_cut_is_listed_where_there_is_no_wood(demo):
    """Butts wider than the edge, a latch bored wider than the leaf is thick: each is a stop, none is a row."""
    thin = solved(hanging=Hanging.POCKET, build=Slab(thickness=16.0))
    assert not [each for each in thin.borings if each.solid is not None and each.solid.depth[0] < 0]
    assert any(each.level is Level.STOP for each in thin.checks)
    assert job().leaves  # a sample job is there


def test_what_is_drilled_is_marked_by_its_middle_and_screw_holes_stay_clear_of_their_cup():
    """[G] 32 × 9.5: √(16² + 9.5²) − 17.5 − 1.25 = −0.14."""
    leaf = solved(450.0, 720.0, hanging=Hanging.OVERLAY, build=Framed(thickness=20.0, stile=60.0))
    cup = next(each for each in leaf.borings if each.name == "cup 1")
    assert cup.marked_at == leaf.figures["cup_1"].value == pytest.approx(cup.from_top + 17.5)
    assert boring_row(cup, IN_MM)[3:5] == (IN_MM.length(cup.marked_at), "⌀ 35")
    assert "cup-pattern" not in {each.code for each in leaf.checks}
    hinge = leaf.leaf.hardware.cup.hinge.model_copy(update={"pattern_apart": 32.0})
    cups = leaf.leaf.hardware.cup.model_copy(update={"hinge": hinge})
    tight = solved(
        450.0,
        720.0,
        hanging=Hanging.OVERLAY,
        build=Framed(thickness=20.0, stile=60.0),
        hardware=leaf.leaf.hardware.model_copy(update={"cup": cups}),
    )
    assert tight.figures["cup_pattern_wood"].value == pytest.approx(-0.142, abs=0.001)
    assert "cup-pattern" in {each.code for each in tight.checks if each.level is Level.STOP}


@pytest.mark.parametrize("build", [Veneered(form=VeneerForm.FRAMED), Light(), Framed(), Slab(), Layered(), Boarded()])
def test_what_is_glued_up_side_by_side_is_as_wide_as_the_leaf_with_its_allowance(build):
    """The pieces that lie at a height across the leaf, as planed, and what comes off at each joint."""
    leaf = solved(build=build, fit=FitChoices(trim_side=2.0, trim_height=3.0))
    glued, width = leaf.figures["glued_width"].value, leaf.figures["leaf_width"].value
    assert glued - width == 4.0
    ends = {"hinge": 0.0, "latch": width}
    for edge, x in ends.items():
        outer = [each for each in leaf.build.parts if min(abs(each.face.x0 - x), abs(each.face.x1 - x)) < 0.01]
        uprights = [each for each in outer if each.grain_upright]
        assert uprights
        for each in uprights:
            plain = each.face.width + (next((t.box[2] - t.box[0] for t in each.tongues), 0.0))
            sawn = (
                leaf.figures["edging_sawn"].value
                if each.role is Role.LIPPING and "edging_sawn" in leaf.figures
                else plain
            )
            assert each.planed.width >= max(sawn, plain) + 2.0 - 0.01, (edge, each.name)
            assert each.planed.length == pytest.approx(leaf.figures["glued_height"].value), each.name


def test_dowels_are_of_a_size_that_is_sold_and_not_too_near():
    """44 thick: a third is 14.7, the nearest dowel 16; in a rail of 70 with a groove of 15 two stand too near."""
    leaf = solved(build=Framed(tenon=TenonKind.DOWELS, top_rail=70.0, groove_depth=15.0))
    assert leaf.figures["dowel"].value == 16.0
    assert {each.thickness for each in leaf.build.tenons if each.loose} == {16.0}
    assert "dowels-near" in {each.code for each in leaf.checks}


def test_slabs_weigh_what_their_jobs_say_without_their_battens(solved_demo):
    for leaf_id, kilos in (("barn-side", 35.0), ("walnut", 63.1)):
        leaf = solved_demo.leaf(leaf_id)
        rho, parts = leaf.figures["density"].value * 1e-9, leaf.build.parts
        sizes = [
            each.face.width * each.face.height * leaf.leaf.build.thickness for each in parts if each.role is Role.STRIP
        ]
        assert sum(sizes) * rho == pytest.approx(kilos, abs=0.05)
        battens = [each for each in parts if each.role is Role.STIFFENER]
        let_in = sum(b.face.width * b.face.height * (leaf.leaf.build.thickness - b.depth[0]) for b in battens)
        mass = leaf.figures["mass"].value - sum(leaf.weights.parts[each.name].value for each in battens)
        assert mass == pytest.approx((sum(sizes) - let_in) * rho, abs=0.05)  # loose tenons fill their sockets
