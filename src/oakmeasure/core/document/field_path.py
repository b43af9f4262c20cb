"""A field of the document by its path: read, and changed in a copy that the document's own checks allow."""

from __future__ import annotations

from typing import Any, TypeVar, get_args

from pydantic import BaseModel, ValidationError

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.readings import Reading
from oakmeasure.core.figures.figure import Provenance

M = TypeVar("M", bound=BaseModel)


def get(model: BaseModel, path: str) -> Any:
    """Return the value at a dotted path, a number being a place in a list; None below something that is None.

    Args:
        model: What holds the field.
        path: Path of the field in the leaf, its names joined by points.

    Raises:
        InputError: For no such field.
    """
    value: Any = model
    for name in path.split("."):
        if value is None:
            return None
        if isinstance(value, tuple):
            value = value[_place(value, path, name)]
            continue
        if name not in type(value).model_fields:
            raise InputError(path, name, "a field that exists")
        value = getattr(value, name)
    return value


def _place(items: tuple[Any, ...], path: str, name: str) -> int:
    if not name.isdigit() or int(name) >= len(items):
        raise InputError(path, name, "a place in the list")
    return int(name)


def _inner(old: Any, path: str, value: Any) -> Any:
    """Return `old`, a model or a list of models, with the value at a path below it changed."""
    if old is None:
        raise InputError(path, value, "what it belongs to, which is not there")
    if not isinstance(old, tuple):
        return with_value(old, path, value)
    name, _, rest = path.partition(".")
    at = _place(old, path, name)
    return (*old[:at], _inner(old[at], rest, value) if rest else value, *old[at + 1 :])


def with_value(model: M, path: str, value: Any) -> M:
    """Return the model with the value at a dotted path changed; everything untouched stays the same object.

    Args:
        model: The model that is changed; it stays as it is.
        path: Path of the field in the leaf, its names joined by points.
        value: The new value.

    Raises:
        InputError: Naming the path when the document refuses the value.
    """
    name, _, rest = path.partition(".")
    if name not in type(model).model_fields:
        raise InputError(path, value, "a field that exists")
    try:
        inner = _inner(getattr(model, name), rest, value) if rest else value
        fields = {each: getattr(model, each) for each in type(model).model_fields}
        return type(model).model_validate(fields | {name: inner})
    except ValidationError as error:
        raise refusal(error, path) from None
    except InputError as error:
        raise error.at(path) from None


def refusal(error: ValidationError, path: str = "") -> InputError:
    """Return the first reason for which the document was refused, in plain words.

    Args:
        error: What the document's own checks say.
        path: Path of the field in the leaf, its names joined by points.
    """
    first = error.errors()[0]
    cause = first.get("ctx", {}).get("error")
    where = path or ".".join(str(each) for each in first["loc"])
    if isinstance(cause, InputError):
        return cause.at(where) if where else cause
    if first["type"] == "missing":
        return InputError(where, "nothing", "a value")
    if first["type"] == "extra_forbidden":
        return InputError(where, "unknown", "to be left out")
    return InputError(where, first.get("input"), _plain(first["msg"]))


def _plain(message: str) -> str:
    return message.removeprefix("Input should be ").removeprefix("Value error, ").removeprefix("String should have ")


def with_field_of(leaf: M, path: str, value: Any) -> M:
    """Return a leaf with a field changed; a number given for a reading becomes a measured one.

    Args:
        leaf: The leaf; it stays as it is.
        path: Path of the field in the leaf, its names joined by points.
        value: The new value.

    Raises:
        InputError: Naming the path when the document refuses the value.
    """
    return with_value(leaf, path, _as_reading(leaf, path, value))


def would_change(leaf: BaseModel, path: str, value: Any) -> bool:
    """Return whether a field can be set so, and is not so already.

    Args:
        leaf: The leaf; it stays as it is.
        path: Path of the field in the leaf, its names joined by points.
        value: The new value.
    """
    try:
        return with_field_of(leaf, path, value) != leaf
    except InputError:
        return False


def _as_reading(model: BaseModel, path: str, value: Any) -> Any:
    parent, _, name = path.rpartition(".")
    owner = get(model, parent) if parent else model
    field = type(owner).model_fields.get(name) if isinstance(owner, BaseModel) else None
    if field is None or not _holds_reading(field.annotation) or value is None or isinstance(value, Reading):
        return value
    old = get(model, path)
    return Reading(value=value, state=Provenance.MEASURED, sigma=old.sigma if isinstance(old, Reading) else None)


def _holds_reading(annotation: Any) -> bool:
    """Return whether a field's type is a reading, or may be one."""
    return annotation is Reading or any(_holds_reading(each) for each in get_args(annotation))
