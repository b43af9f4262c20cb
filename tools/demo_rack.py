"""The demo job's wood: imperfect boards on the rack, sections and sheets, and what a made-up yard sells."""

from __future__ import annotations

from datetime import date, timedelta

from oakmeasure.core.document.stock import (
    Board,
    BoardMark,
    Came,
    Face,
    Flaw,
    MoistureReading,
    Pin,
    Sawn,
    Section,
    SheetStock,
)

FIRST_DAY = date(2026, 9, 7)


def readings(*percents: float, every: int = 7) -> tuple[MoistureReading, ...]:
    """Return readings at so many days from one another."""
    return tuple(
        MoistureReading(day=FIRST_DAY + timedelta(days=every * at), percent=each) for at, each in enumerate(percents)
    )


def mark(flaw: Flaw, x: float, y: float, length: float, width: float, face: Face = Face.THROUGH) -> BoardMark:
    return BoardMark(flaw=flaw, face=face, x=x, y=y, length=length, width=width)


RACK = (
    Board(
        label="B1",
        species="european_oak",
        length=3015,
        width=231,
        thickness=53.0,
        quantity=1,
        price=58.0,
        bow=4,
        marks=(
            mark(Flaw.SAPWOOD, 0, 0, 3015, 21, Face.OTHER),
            mark(Flaw.KNOT, 1120, 92, 64, 48),
            mark(Flaw.SPLIT, 2880, 96, 135, 12),
        ),
        readings=readings(24.6, 21.8, 19.7, 17.9, 16.4, 15.2),
    ),
    Board(
        label="B2",
        species="european_oak",
        length=2640,
        width=204,
        thickness=52.5,
        quantity=1,
        price=44.0,
        crook=6,
        marks=(mark(Flaw.SAPWOOD, 0, 176, 2640, 22), mark(Flaw.KNOT, 610, 40, 38, 30, Face.OTHER)),
        readings=readings(14.1, 13.2, 12.4, 11.9, 11.4),
    ),
    Board(
        label="B3",
        species="european_oak",
        length=3400,
        width=268,
        thickness=54.0,
        quantity=1,
        price=76.0,
        marks=(
            mark(Flaw.KNOT, 905, 30, 70, 60),
            mark(Flaw.KNOT, 2410, 150, 55, 44),
            mark(Flaw.WANE, 0, 0, 780, 26),
            mark(Flaw.SPLIT, 0, 120, 96, 10),
        ),
    ),
    Board(
        label="B4",
        species="european_oak",
        length=2250,
        width=186,
        thickness=27.0,
        quantity=1,
        price=24.0,
        marks=(mark(Flaw.KNOT, 1330, 60, 46, 40),),
    ),
    Board(
        label="B5",
        species="european_oak",
        length=2480,
        width=212,
        thickness=26.5,
        quantity=1,
        price=29.0,
        bow=7,
        marks=(mark(Flaw.SAPWOOD, 0, 0, 2480, 18), mark(Flaw.STAIN, 200, 90, 260, 60, Face.OTHER)),
    ),
    Board(
        label="R1",
        species="redwood",
        length=3900,
        width=196,
        thickness=48.5,
        quantity=1,
        price=18.0,
        came=Came.RECLAIMED,
        year=1887,
        colour="deep amber, nail-blackened",
        searched=True,
        one_face=True,
        marks=(
            mark(Flaw.METAL, 410, 30, 40, 40),
            mark(Flaw.METAL, 1610, 34, 40, 40),
            mark(Flaw.GROOVE, 0, 172, 3900, 24),
            mark(Flaw.METAL, 2805, 30, 40, 40),
        ),
    ),
    Board(
        label="R2",
        species="redwood",
        length=2750,
        width=165,
        thickness=49.0,
        quantity=1,
        price=14.0,
        came=Came.RECLAIMED,
        year=1887,
        colour="amber",
        marks=(mark(Flaw.GROOVE, 1210, 0, 110, 165), mark(Flaw.KNOT, 380, 60, 50, 44)),
    ),
    Board(
        label="D1",
        species="redwood",
        length=1960,
        width=96,
        thickness=41.0,
        quantity=2,
        price=6.0,
        came=Came.DONOR,
        sawn=Sawn.PLANED,
        year=1934,
        colour="pale, painted one side",
        one_face=True,
        marks=(mark(Flaw.GROOVE, 880, 0, 150, 96),),
    ),
    Board(label="O1", species="european_oak", length=1240, width=142, thickness=52.0, quantity=1, came=Came.OFFCUT),
)
YARD = (
    Board(length=4200, width=225, thickness=52, price=118.0),
    Board(length=3000, width=250, thickness=52, price=96.0),
    Board(length=2400, width=200, thickness=52, price=59.0),
    Board(length=3000, width=225, thickness=30, price=46.0),
    Board(length=2400, width=200, thickness=26, price=31.0),
    Board(length=3000, width=200, thickness=20, price=34.0),
    Board(length=2400, width=200, thickness=20, price=27.0),
)
SECTIONS = (
    Section(species="redwood", width=114, thickness=21, length=2400, price=8.6),
    Section(species="redwood", width=114, thickness=21, length=3000, price=10.4),
    Section(species="redwood", width=72, thickness=21, length=2400, price=5.7),
    Section(species="redwood", width=72, thickness=21, length=3900, quantity=2, price=8.2),
)
SHEETS = (
    SheetStock(material="ply_birch", length=2440, width=1220, thickness=12, price=98.0),
    SheetStock(material="ply_birch", length=1500, width=1220, thickness=12, quantity=1, price=42.0, label="P1"),
    SheetStock(
        material="ply_birch", length=905, width=610, thickness=12, quantity=1, price=9.0, label="P2", came=Came.OFFCUT
    ),
    SheetStock(material="blockboard", length=2440, width=1220, thickness=34.4, price=236.0),
)
PINS: tuple[Pin, ...] = ()
