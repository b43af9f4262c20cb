"""The one way in which the core refuses an input."""

from __future__ import annotations


class InputError(ValueError):
    """An input that makes no sense, with the field it was made in and what is needed instead.

    field: the path of the field ("build.stile") or the name of the keyword argument. value: what was given.
    need: one plain phrase that completes "needs ...". limits: low and high in `unit`, where a range is
    what is needed, so that a view can say it in the person's own units.
    """

    def __init__(
        self, field: str, value: object, need: str = "", *, limits: tuple[float, float] | None = None, unit: str = ""
    ) -> None:
        super().__init__(field, value, need)
        self.field = field
        self.value = value
        self.limits = limits
        self.unit = unit
        self.need = need or (f"{limits[0]:g} to {limits[1]:g} {unit}".strip() if limits else "another value")

    def at(self, field: str) -> InputError:
        """Return the same refusal, naming another field."""
        return InputError(field, self.value, self.need, limits=self.limits, unit=self.unit)

    def __str__(self) -> str:
        return f"{self.field.rsplit('.', 1)[-1].replace('_', ' ')} {self.value}: needs {self.need}"


class LengthError(ValueError):
    """Text that cannot be read as a length (or mass, temperature, ...), with the reason in plain words."""


class FileError(ValueError):
    """A file that cannot be read or written, the reason in one line whatever stands in the file."""

    def __init__(self, text: str) -> None:
        super().__init__(" ".join(text.split()))
