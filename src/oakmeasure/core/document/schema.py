"""The JSON schema of a job file, each field with what is said beside it in the model."""

from __future__ import annotations

import ast
import inspect
import textwrap
from itertools import pairwise
from typing import Any

from oakmeasure.core.document.job import Job
from oakmeasure.core.document.rules import FrozenModel


def job_schema() -> dict[str, Any]:
    """Return the schema of a job file, as JSON Schema has it."""
    schema = Job.model_json_schema()
    models = {each.__name__: each for each in _models(FrozenModel)}
    for name, definition in [*schema["$defs"].items(), (Job.__name__, schema)]:
        if name in models:
            said = _said_of(models[name])
            for field, entry in definition.get("properties", {}).items():
                if field in said:
                    entry["description"] = said[field]
    return schema


def _models(model: type[FrozenModel]) -> list[type[FrozenModel]]:
    return [model, *(each for child in model.__subclasses__() for each in _models(child))]


def _said_of(model: type[FrozenModel]) -> dict[str, str]:
    """What stands under each field of a model and of those that it is made from."""
    said: dict[str, str] = {}
    for each in reversed(model.__mro__):
        if not issubclass(each, FrozenModel):
            continue
        body = ast.parse(textwrap.dedent(inspect.getsource(each))).body[0]
        assert isinstance(body, ast.ClassDef)
        for field, under in pairwise(body.body):
            match field, under:
                case (ast.AnnAssign(target=ast.Name(id=name)), ast.Expr(value=ast.Constant(value=str(text)))):
                    said[name] = " ".join(text.split())
    return said
