"""Ticks and points from CSV and DXF: read whole, or refused with the line and the reason."""

from __future__ import annotations

import contextlib
import math
from pathlib import Path

import ezdxf
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.readings import MeasuredBy, TickForm
from oakmeasure.core.edits import tick_edits
from oakmeasure.core.solver import solve
from oakmeasure.files.tables.points import PointsFileError, read_points
from samples import job


def read(tmp_path, text, unit=UnitSystem.MM, name="ticks.csv"):
    path = tmp_path / name
    path.write_bytes(text if isinstance(text, bytes) else text.encode())
    return read_points(path, unit)


def test_ticks_by_angle_by_second_point_and_plain_points_are_read(tmp_path):
    by_angle = read(tmp_path, "x,y,angle,side\n10,20,45,2\n12.5,-3,-90,\n")
    assert [(each.x, each.y, each.angle_deg, each.side) for each in by_angle] == [
        (10, 20, 45, 2),
        (12.5, -3, -90, None),
    ]
    (second,) = read(tmp_path, "# board of the gable\n1;2;3;4,5\n")
    assert (second.x2, second.y2) == (3, 4.5)
    points = read(tmp_path, "x\ty\n27 7/8\t1/2\n", UnitSystem.INCH)
    assert (points[0].x, points[0].y) == (708.025, 12.7)


@pytest.mark.parametrize(
    ("text", "reason"),
    [
        ("x;y\n1;2\n1;zz\n", "line 3, y: “zz”"),
        ("1,2,3,4,5\n", "5 columns"),
        ("", "no ticks"),
        ("x,y\n", "no ticks"),
        ("x,depth\n1,2\n", "“depth”"),
        ("x,angle\n1,2\n", "no column y"),
        ("1,2,3\n4,5\n", "line 2: 2 cells"),
        ("x,y,side\n1,2,nine\n", "whole number"),
        ("x,y,side\n1,2,9\n", "line 2, side"),
        ("x,y,x2,y2\n1,2,1,2\n", "another point"),
        ("x,y,x2,y2\n1,2,3,\n", "both figures"),
        (b"\xfe\xfe1,2\n", "not text"),
        ("1,2\n" * 5001, "line 5001: more than 5000"),
        ("1" * 3000, "longer than"),
        ("x,y\n1e9,2\n", "exponent"),
        ("x,y\n99999,2\n", "line 2, x"),
    ],
)
def test_file_that_is_not_understood_is_refused_with_line_and_reason(tmp_path, text, reason):
    with pytest.raises(PointsFileError, match=r"ticks\.csv was not read") as refused:
        read(tmp_path, text)
    assert reason in str(refused.value)


def test_missing_file_and_folder_are_refused(tmp_path):
    for path in (tmp_path / "none.csv", tmp_path):
        with pytest.raises(PointsFileError):
            read_points(path, UnitSystem.MM)


def bytes_read():
    """What this process has read so far, as the kernel counts it."""
    return int(Path("/proc/self/io").read_text().splitlines()[0].removeprefix("rchar: "))


def test_200_mb_of_csv_are_refused_at_once(tmp_path):
    path = tmp_path / "scan.csv"
    block = b"1.0,2.0\n" * 131072
    with path.open("wb") as stream:
        for _ in range(200):
            stream.write(block)
    before = bytes_read()
    with pytest.raises(PointsFileError, match="more than 5000"):
        read_points(path, UnitSystem.MM)
    assert bytes_read() - before < 5_000_000  # it is not read to its end
    path.unlink()


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.one_of(st.binary(max_size=300), st.text(alphabet="xy,;0123456789.-+e\n \t\"'", max_size=200).map(str.encode)))
def test_no_file_makes_it_fail_but_with_a_reason(tmp_path, content):
    for name in ("any.csv", "any.dxf"):
        with contextlib.suppress(PointsFileError):
            assert read(tmp_path, content, name=name)


def drawing(tmp_path, unit=ezdxf.units.CM):
    document = ezdxf.new()
    document.units = unit
    space = document.modelspace()
    scale = 0.1 if unit == ezdxf.units.CM else 1
    corners = [(x * scale, y * scale) for x, y in ((0, 0), (640, 0), (647, 910), (7, 905))]
    space.add_lwpolyline(corners, close=True)
    space.add_text("not a point")
    path = tmp_path / "opening.dxf"
    document.saveas(path)
    return path


@pytest.mark.parametrize("unit", [ezdxf.units.CM, ezdxf.units.MM, 0])
def test_dxf_outline_gives_the_opening_in_mm_whatever_its_unit(tmp_path, unit):
    ticks = read_points(drawing(tmp_path, unit), UnitSystem.MM)
    made = tick_edits.with_ticks(job(), "leaf-1", ticks)
    assert made.leaves[0].measured_by is MeasuredBy.TICKS
    assert made.leaves[0].template.form is TickForm.POINT
    leaf = solve(made).leaves[0]
    assert leaf.opening.taken.corners[1] == pytest.approx((640, 0), abs=0.01)
    assert leaf.opening.taken.corners[2] == pytest.approx((647, 910), abs=0.01)


def test_dxf_arc_gives_points_on_it_and_a_wrong_file_its_reason(tmp_path):
    document = ezdxf.new()
    document.units = ezdxf.units.MM
    document.modelspace().add_arc((100, 50), 400, 30, 150)
    path = tmp_path / "arch.dxf"
    document.saveas(path)
    points = read_points(path, UnitSystem.MM)
    assert all(math.dist((each.x, each.y), (100, 50)) == pytest.approx(400) for each in points)
    text = path.read_text()
    with pytest.raises(PointsFileError, match="DXF"):
        read(tmp_path, text[: len(text) // 3], name="cut.dxf")


def test_dxf_splines_ellipses_circles_blocks_and_inches_give_points_on_their_curves(tmp_path):
    document = ezdxf.new()
    document.units = ezdxf.units.IN
    space = document.modelspace()
    block = document.blocks.new("side")
    block.add_line((0, 0), (0, 40))
    inner = document.blocks.new("jamb")
    inner.add_blockref("side", (1, 2))
    space.add_blockref("jamb", (10, 0))
    space.add_circle((50, 50), 5)
    space.add_ellipse((0, 0), major_axis=(8, 0), ratio=0.5, start_param=0, end_param=math.pi)
    space.add_spline([(0, 0), (10, 5), (20, 0)])
    path = tmp_path / "inch.dxf"
    document.saveas(path)
    found = [(each.x / 25.4, each.y / 25.4) for each in read_points(path, UnitSystem.MM)]
    side, ring, oval, curve = found[:4], found[4:13], found[13:22], found[22:]
    assert all(x == pytest.approx(11) and 2 < y < 42 for x, y in side)
    assert all(math.dist(each, (50, 50)) == pytest.approx(5) for each in ring)
    assert all((x / 8) ** 2 + (y / 4) ** 2 == pytest.approx(1) and y > 0 for x, y in oval)
    assert len(curve) == 9
    assert all(0 < x < 20 and 0 < y < 5.1 for x, y in curve)


def test_dxf_of_nothing_that_can_be_measured_names_what_is_in_it(tmp_path):
    document = ezdxf.new()
    document.modelspace().add_text("height 2031")
    document.modelspace().add_mtext("width 742")
    path = tmp_path / "words.dxf"
    document.saveas(path)
    with pytest.raises(PointsFileError, match="only MTEXT, TEXT in it: points, lines and curves are needed"):
        read_points(path, UnitSystem.MM)


def test_dxf_of_blocks_in_themselves_or_by_the_thousand_ends_with_a_reason(tmp_path):
    document = ezdxf.new()
    document.blocks.new("grid").add_line((0, 0), (1, 0))
    document.modelspace().add_blockref(
        "grid", (0, 0), dxfattribs={"row_count": 100, "column_count": 100, "row_spacing": 5, "column_spacing": 5}
    )
    path = tmp_path / "grid.dxf"
    document.saveas(path)
    with pytest.raises(PointsFileError, match="more than 5000 points"):
        read_points(path, UnitSystem.MM)
    twice = ezdxf.new()
    twice.blocks.new("a").add_blockref("a", (1, 1))
    twice.modelspace().add_blockref("a", (0, 0))
    path = tmp_path / "itself.dxf"
    twice.saveas(path)
    with pytest.raises(PointsFileError):
        read_points(path, UnitSystem.MM)


def test_dxf_of_blocks_that_hold_blocks_ends_with_a_reason(tmp_path):
    """Eight blocks, twenty times the one before in each: 25 thousand millions of things."""
    document = ezdxf.new()
    for at in range(8):
        block = document.blocks.new(f"b{at}")
        for n in range(20):
            block.add_blockref(f"b{at - 1}", (n, 0)) if at else block.add_text("x")
    document.modelspace().add_blockref("b7", (0, 0))
    path = tmp_path / "nested.dxf"
    document.saveas(path)
    with pytest.raises(PointsFileError, match="blocks counted"):
        read_points(path, UnitSystem.MM)
