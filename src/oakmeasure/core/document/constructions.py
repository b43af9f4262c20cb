"""Which constructions there are: each is a folder of core/construction, named here once.

The document must know every kind's model, and a kind is one folder: so the models, which are plain data, are looked up
by the folder's name. docs/decisions/001-a-kind-is-a-folder.md says why.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from oakmeasure.core.document.construction_model import ConstructionModel

KINDS = (
    "framed",
    "boarded",
    "slab",
    "layered",
    "light",
    "veneered",
    "existing",
)  # folders of core/construction, in the order in which they are offered


def model_of(kind: str) -> type[ConstructionModel]:
    """Return a construction's model.

    Args:
        kind: One of `KINDS`.

    Returns:
        The class; made without arguments it holds the construction's defaults.
    """
    model: type[ConstructionModel] = import_module(f"oakmeasure.core.construction.{kind}.model").MODEL
    return model


def trade_name(kind: str) -> str:
    """Return what the trade calls a construction.

    Args:
        kind: One of `KINDS`.

    Returns:
        A few words in lower case.
    """
    return model_of(kind).trade_name


if TYPE_CHECKING:
    Construction = ConstructionModel
else:
    Construction = Annotated[Union[tuple(map(model_of, KINDS))], Field(discriminator="kind")]  # noqa: UP007
