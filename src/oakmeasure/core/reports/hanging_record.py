"""The record of a leaf that hangs.

As built and as hung, its gaps, its weight, what was answered for, what was learnt.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import TYPE_CHECKING, Any

from oakmeasure.core.base.parsing import is_near_size
from oakmeasure.core.base.units import Show, Unit, UnitSystem
from oakmeasure.core.document.adjustment import Gaps
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.production import LogKind
from oakmeasure.core.document.readings import MeasuredBy
from oakmeasure.core.document.species import species
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.making.lessons import Lesson, keys_of
from oakmeasure.core.making.log import all_spent

if TYPE_CHECKING:
    from oakmeasure.core.document.job import Job, Leaf
    from oakmeasure.core.solution import LeafSolution


@dataclass(frozen=True, slots=True)
class RecordLine:
    """One line of the record: what, as built, as hung; either may be empty."""

    what: str
    """What it is."""
    built: str
    """As it was built."""
    hung: str = ""
    """As it was read on the hung leaf."""


@dataclass(frozen=True, slots=True)
class Record:
    """What a hung leaf's record says."""

    title: str
    """What the leaf is."""
    place: str
    """Where it hangs."""
    on: date | None
    """The day."""
    by: str
    """Who."""
    lines: tuple[RecordLine, ...]
    """Sizes and hardware."""
    gaps: tuple[tuple[str, str], ...]
    """Name and gap read."""
    answered: tuple[tuple[str, str], ...]
    """Stops with their reasons."""
    notes: tuple[str, ...]
    """Notes of its log."""
    lessons: tuple[str, ...]
    """That were learnt."""
    readings: tuple[tuple[str, str], ...] = ()
    """Readings of its opening."""


def gap_rows(gaps: Gaps, show: Show) -> tuple[tuple[str, str], ...]:
    """Return the gaps that were read, each with its place.

    Args:
        gaps: The gaps as they were read, mm.
        show: How lengths and other quantities are written.
    """
    return tuple(
        (name.replace("_", ", "), show.fine(getattr(gaps, name)))
        for name in type(gaps).model_fields
        if name != "touches" and getattr(gaps, name) is not None
    )


def record_of(job: Job, leaf: LeafSolution, show: Show) -> Record | None:
    """Return the record of a leaf; None where there is no leaf.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.build is None:
        return None
    said, f = leaf.leaf, leaf.figures
    signed = said.hung.signed

    def mm(name: str) -> str:
        return show.length(f[figure_name(name)].value) if figure_name(name) in f else ""

    hung_width = show.length(signed.width) if signed is not None and signed.width is not None else ""
    hung_height = show.length(signed.height) if signed is not None and signed.height is not None else ""
    weighed = show.value(signed.mass_kg, Unit.KG) if signed is not None and signed.mass_kg is not None else ""
    lines = [
        RecordLine("leaf, width", show.length(leaf.fit.width.value), hung_width),
        RecordLine("leaf, height", show.length(leaf.fit.height.value), hung_height),
        RecordLine(
            "thickness", mm("thickness_set_out") or mm("thickness"), mm("thickness") if "thickness_set_out" in f else ""
        ),
        RecordLine("weight", show.value(f["mass"].value, Unit.KG), weighed),
        RecordLine("construction", trade_name(said.build.kind)),
        RecordLine("joints", leaf.build.says),
        RecordLine("timber", species(said.timber.wood).name),
        RecordLine("moisture", show.value(f["moisture_made"].value, Unit.PERCENT)),
        RecordLine("hung", f"{said.hanging}, {said.hand}"),
        RecordLine("hardware", _hardware(leaf)),
        RecordLine("opening, clear", f"{mm('clear_width')} × {mm('clear_height')}"),
    ]
    if leaf.making is not None:
        hours = sum(each.hours for each in all_spent(leaf.making.operations, said.making.log).values())
        lines.append(RecordLine("hours", f"{leaf.making.hours:.1f} reckoned", f"{hours:.1f} taken" if hours else ""))
    if said.hung.proof_held and "proof_load" in f:
        lines.append(RecordLine("proof load", show.value(f["proof_load"].value, Unit.KG), "held"))
    titles = {v.code: v.title for v in leaf.checks}
    answered = tuple((titles.get(each.code, each.code), each.reason) for each in said.acknowledged)
    notes = tuple(
        f"{e.at.day} {e.at:%b}: {e.text}"
        for e in said.making.log
        if e.kind in (LogKind.NOTE, LogKind.MISHAP) and e.text
    )
    lessons = tuple(e.text for e in said.making.log if e.about is not None and e.text)
    note = (f"{signed.on.day} {signed.on:%b}: {signed.note}",) if signed is not None and signed.note else ()
    gaps = gap_rows(said.hung.gaps, show) + tuple(
        (f"slow leaf, {name}", gap) for name, gap in gap_rows(said.hung.second, show)
    )
    return Record(
        said.name,
        " · ".join(each for each in (job.name, job.place) if each),
        signed.on if signed else None,
        signed.by if signed else "",
        tuple(lines),
        gaps,
        answered,
        (*notes, *note),
        lessons,
        reading_rows(said, show),
    )


def reading_rows(said: Leaf, show: Show) -> tuple[tuple[str, str], ...]:
    """Return what was measured of the opening, each with its name, the way that it was taken.

    Args:
        said: The leaf, as the document holds it.
        show: How lengths and other quantities are written.
    """
    if said.measured_by is MeasuredBy.POLYGON and said.polygon is not None:
        spans = said.polygon.spans
        return tuple((f"corner {each.start} to {each.end}", show.length(each.length.value)) for each in spans)
    if said.measured_by is MeasuredBy.TICKS and said.template is not None:
        return (("ticks on the board", f"{sum(not each.excluded for each in said.template.ticks)}"),)
    taken = ((name, getattr(said.readings, name)) for name in type(said.readings).model_fields)
    return tuple((name.replace("_", ", "), show.length(each.value)) for name, each in taken if each is not None)


def _hardware(leaf: LeafSolution) -> str:
    hardware = leaf.leaf.hardware
    if leaf.cups is not None:
        return f"{len(leaf.cups.places)} × {hardware.cup.hinge.name}"
    if leaf.butts is not None:
        return f"{len(leaf.butts.places)} × {hardware.butt.name}"
    return leaf.leaf.slide.track_set.name if leaf.leaf.slide.track_set is not None else "gear as made"


# --- the job book ------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class BookEntry:
    """One leaf in the job book."""

    name: str
    """Its name, as it is shown."""
    job: str
    """Name of the job."""
    place: str
    """Where it hangs."""
    construction: str
    """How it is built."""
    hanging: str
    """How it hangs."""
    timber: str
    """What it is made of."""
    width: float
    """Width, mm."""
    height: float
    """Height, mm."""
    mass_kg: float
    """Mass, kg."""
    on: date
    """The day on which it was signed off."""
    by: str
    """Who signed it off."""
    lessons: tuple[Lesson, ...]
    """What was learnt."""
    document: dict[str, Any]
    """The job with that leaf alone, to be opened again."""
    source: str = ""
    """The job's file."""

    def matches(self, words: str, system: UnitSystem = UnitSystem.MM) -> bool:
        """Return whether every word stands somewhere in it; a size finds widths and heights near it.

        Args:
            words: The words.
            system: In which units a bare number is.
        """
        text = " ".join(
            (
                self.name,
                self.job,
                self.place,
                self.construction,
                self.hanging,
                self.timber,
                self.by,
                self.on.isoformat(),
                *(each.text for each in self.lessons),
            )
        ).lower()
        return all(
            word in text or is_near_size(word, (self.width, self.height), system)
            for word in words.lower().replace("×", " ").split()
        )


def entry_of_leaf(job: Job, leaf: LeafSolution) -> BookEntry:
    """Return a signed leaf as it goes into the book.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, worked out to the end.

    Raises:
        ValueError: For one that is not signed off, or is no leaf.
    """
    said, signed = leaf.leaf, leaf.leaf.hung.signed
    if signed is None or leaf.build is None:
        raise ValueError("sign it off first")
    alone = job.model_copy(update={"leaves": (said,), "boards": (), "sections": (), "sheets": ()})
    lessons = tuple(
        Lesson(e.about, keys_of(said, e.about)[0], e.op, e.text, said.name, job.name, e.at.date())
        for e in said.making.log
        if e.about is not None and e.text
    )
    return BookEntry(
        said.name,
        job.name,
        job.place,
        trade_name(said.build.kind),
        str(said.hanging),
        species(said.timber.wood).name,
        signed.width or leaf.fit.width.value,
        signed.height or leaf.fit.height.value,
        signed.mass_kg or leaf.figures["mass"].value,
        signed.on,
        signed.by,
        lessons,
        alone.model_dump(mode="json"),
    )
