"""What is chosen for the making of a leaf, and the log of what was done, as the document holds it."""

from __future__ import annotations

from datetime import date, datetime
from enum import StrEnum
from typing import Annotated

from pydantic import Field, field_validator, model_validator

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.text import ONE_LINE, SOME_LINES
from oakmeasure.data import table


class LogKind(StrEnum):
    """What an entry of the log is."""

    START = "started"
    STOP = "stopped"
    DONE = "done"
    READING = "reading"
    NOTE = "note"
    MISHAP = "mishap"
    MENDED = "mended"


class ReadingKind(StrEnum):
    """What can be read while a leaf is made."""

    THICKNESS = "thickness of the leaf"
    BOARD_WIDTH = "width of a board"
    LAST_RIP = "width of the last board"
    MOISTURE = "moisture"
    RISING = "diagonal, rising to the latch"
    FALLING = "diagonal, falling to the latch"
    SPREAD = "thickness, thickest less thinnest"
    TWIST = "twist, by winding sticks"
    MASS = "weight"


NOT_LENGTHS = {ReadingKind.MOISTURE: Unit.PERCENT, ReadingKind.MASS: Unit.KG}


def unit_of(reading: ReadingKind) -> Unit:
    """Return the unit that a reading of the log is in.

    Args:
        reading: What was read.
    """
    return NOT_LENGTHS.get(reading, Unit.MM)


LIMITS: dict[ReadingKind, tuple[float, float]] = {
    ReadingKind.THICKNESS: (6, 120),
    ReadingKind.BOARD_WIDTH: (30, 600),
    ReadingKind.LAST_RIP: (1, 600),
    ReadingKind.MOISTURE: (4, 25),
    ReadingKind.RISING: (200, 5000),
    ReadingKind.FALLING: (200, 5000),
    ReadingKind.SPREAD: (0, 10),
    ReadingKind.TWIST: (0, 60),
    ReadingKind.MASS: (0.1, 400),
}
OF_A_PART = (ReadingKind.BOARD_WIDTH, ReadingKind.LAST_RIP)  # the others are of the whole leaf


class MishapKind(StrEnum):
    """What goes wrong."""

    HOLE_DEEP = "hole too deep"
    HOLE_OFF = "hole in the wrong place"
    SPLIT = "split"
    SHORT = "cut too short"
    SCREW = "screw sheared off"
    MORTISE_DEEP = "mortise too deep"
    TEAR_OUT = "tear-out"


class About(StrEnum):
    """What a lesson is about: it comes back when the same is used again."""

    CONSTRUCTION = "construction"
    HARDWARE = "hardware"
    TIMBER = "timber"


class LogEntry(FrozenModel):
    """One line of the log."""

    at: datetime
    """When it was."""
    kind: LogKind
    """What happened."""
    op: Annotated[str, Field(max_length=80), ONE_LINE] = ""
    """Id of the operation."""
    part: Annotated[str, Field(max_length=80), ONE_LINE] = ""
    """That a reading or a mishap is of."""
    reading: ReadingKind | None = None
    """What was read; None for no reading."""
    value: Annotated[float, bounded(0, 5000, "value", "")] | None = None
    """In mm, % or kg; of a mishap how far it went wrong, mm."""
    mishap: MishapKind | None = None
    """What went wrong; None for no mishap."""
    hole: Annotated[str, Field(max_length=80), ONE_LINE] = ""
    """Of a mishap the name of the hole; "" for none, or the deepest of the part."""
    repair: Annotated[str, Field(max_length=80), ONE_LINE] = ""
    """By which it is or was mended."""
    text: Annotated[str, Field(max_length=500), SOME_LINES] = ""
    """The person's words; "" for none."""
    photo: Annotated[str, Field(max_length=300), ONE_LINE] = ""
    """A file, by its name."""
    about: About | None = None
    """Of a note that is a lesson."""

    @model_validator(mode="after")
    def _agrees(self) -> LogEntry:
        if self.at.tzinfo is not None:
            raise InputError("at", str(self.at), "the time of the workshop's clock, without a zone")
        if self.kind in (LogKind.START, LogKind.STOP, LogKind.DONE) and not self.op:
            raise InputError("op", "nothing", "the operation that it is of")
        if self.kind is LogKind.READING:
            if self.reading is None or self.value is None:
                raise InputError("value", "nothing", "what was read, and how much")
            low, high = LIMITS[self.reading]
            if not low <= self.value <= high:
                raise InputError("value", f"{self.value:g}", limits=(low, high), unit=unit_of(self.reading))
            if self.reading in OF_A_PART and not self.part:
                raise InputError("part", "nothing", "the part that was read")
        if self.kind in (LogKind.MISHAP, LogKind.MENDED) and self.mishap is None:
            raise InputError("mishap", "nothing", "what went wrong")
        if self.kind is LogKind.NOTE and not (self.text or self.photo):
            raise InputError("text", "nothing", "a few words, or a photo")
        return self


class MakeChoices(FrozenModel):
    """bench_humidity: of the shop, where finish dries, %."""

    glue: str | None = None
    """Key of data/glues.toml; None: the first that bears where the leaf lives."""
    shop_temperature_c: Annotated[float, bounded(-5, 40, "temperature", "°C")] = 18.0
    """Of the shop, °C."""
    people: Annotated[int, Field(ge=1, le=4)] = 1
    """At a glue-up."""
    joint_minutes: Annotated[float, bounded(0.1, 30, "time", "minutes")] | None = None
    """To spread and close one joint; None by its kind."""
    coats: Annotated[int, Field(ge=1, le=8)] | None = None
    """Of finish; None by the finish."""
    humidity: Annotated[float, bounded(10, 95, "humidity", "%")] = 55.0
    """Humidity, %."""
    start: date | None = None
    """Day on which it is begun; None where that is not said."""
    due: date | None = None
    """Day for which it is promised; None where that is not said."""
    hours_a_day: Annotated[float, bounded(0.5, 14, "hours a day", "hours")] = 6.0
    """At the bench, on days from Monday to Friday."""
    log: Annotated[tuple[LogEntry, ...], Field(max_length=2000)] = ()
    """In the order of time."""

    @field_validator("glue")
    @classmethod
    def _known(cls, key: str | None) -> str | None:
        if key is not None and key not in table("glues"):
            raise InputError("glue", key, "one of " + ", ".join(table("glues")))
        return key
