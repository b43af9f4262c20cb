"""The one way in which the core refuses an input."""

from __future__ import annotations


class InputError(ValueError):
    """An input that makes no sense, with the field it was made in and what is needed instead.

    field: the path of the field ("build.stile") or the name of the keyword argument. value: what was given.
    need: one plain phrase that completes "needs ...", its lengths as "12 mm": `in_words` of
    core/base/units.py says them in the person's own unit.
    limits: low and high in `unit`, where a range is what is needed.
    """

    def __init__(
        self, field: str, value: object, need: str = "", *, limits: tuple[float, float] | None = None, unit: str = ""
    ) -> None:
        super().__init__(field, value, need)
        self.field = field
        self.value = value
        self.limits = limits
        self.unit = unit
        self.need = need or (_range(*limits, unit) if limits else "another value")

    def at(self, field: str) -> InputError:
        """Return the same refusal, naming another field.

        Args:
            field: Path of the other field.
        """
        return InputError(field, self.value, self.need, limits=self.limits, unit=self.unit)

    def __str__(self) -> str:
        return f"{self.field.rsplit('.', 1)[-1].replace('_', ' ')} {self.value}: needs {self.need}"


def _range(low: float, high: float, unit: str) -> str:
    return f"{low:g} mm to {high:g} mm" if unit == "mm" else f"{low:g} to {high:g} {unit}".strip()


class LengthError(ValueError):
    """Text that cannot be read as a length (or mass, temperature, ...), with the reason in plain words."""


class FileError(ValueError):
    """A file that cannot be read or written, the reason in one line whatever stands in the file."""

    def __init__(self, text: str) -> None:
        super().__init__(" ".join(text.split()))
