"""The project's own promises: its commands, its pictures, its links."""

from __future__ import annotations

import ast
import re
import subprocess
from collections import Counter
from graphlib import TopologicalSorter
from pathlib import Path

import grimp
import pytest

from oakmeasure.core.figures.check import Stage
from oakmeasure.data import path_of

ROOT = Path(__file__).parent.parent


def test_readme_gives_the_two_commands_and_ci_calls_the_one_that_tests():
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    assert "./run demo" in readme
    assert "./run test" in readme
    assert "./run test" in (ROOT / ".ci/run").read_text(encoding="utf-8")
    told = subprocess.run(["sh", str(ROOT / "run"), "help"], capture_output=True, text=True, check=True).stdout
    for command in ("demo", "test", "check", "lint", "shots", "bench", "setup"):
        assert f"./run {command}" in told


PAGES = ["README.md", "CONTRIBUTING.md", *(f"docs/{each}.md" for each in ("architecture", "tour", "paper", "kept"))]


@pytest.mark.parametrize("page", PAGES)
def test_every_link_of_a_page_leads_to_a_file(page):
    text = (ROOT / page).read_text(encoding="utf-8")
    for target in re.findall(r"\]\(([^)#:]+)\)", text):
        assert ((ROOT / page).parent / target).exists(), target


def test_every_stage_has_its_picture_and_there_are_fewer_than_twenty():
    pictures = {each.stem for each in (ROOT / "docs/screenshots").glob("*.png")}
    assert all(any(each.partition("-")[0] == stage.lower() for each in pictures) for stage in Stage)
    assert len(pictures) < 20


@pytest.mark.parametrize("page", ["architecture.md", "adding.md", "quick-sums.md", "gauges.md", "kept.md", "paper.md"])
def test_every_file_that_a_page_names_is_there(page):
    text = (ROOT / "docs" / page).read_text(encoding="utf-8").replace("\\_", "_")
    named = re.findall(
        r"(?<![\w/.])(?:core|app|files|cli|language|data|tests|tools|docs)/[\w/-]+\.(?:py|toml|md)\b", text
    )
    for name in named:
        if not re.search("KIND|STAGE|/plain/", name):  # what a recipe makes
            assert any((ROOT / under / name).exists() for under in ("", "src/oakmeasure")), name


def test_no_module_needs_one_that_needs_it_not_even_for_a_type():
    graph = grimp.build_graph("oakmeasure", cache_dir=None)
    needs = {module: graph.find_modules_directly_imported_by(module) for module in graph.modules}
    packages = {module for module in graph.modules if graph.find_children(module)}
    # What a module imports of a package is in its modules: packages themselves hold nothing.
    TopologicalSorter({each: found - packages for each, found in needs.items()}).prepare()


def test_demo_job_is_the_one_that_its_script_writes():
    import runpy

    from oakmeasure.files.job.job_file import load

    made = runpy.run_path(str(ROOT / "tools/make_demo.py"))["demo"]()
    assert load(path_of("demo.oakjob")) == made


def _modules():
    """Those that Python reads: what the package is made of, and its tests."""
    found = (path for top in ("src", "tests") for path in sorted((ROOT / top).rglob("*.py")))
    return [(path, path.read_text(encoding="utf-8")) for path in found]


def _lines(function):
    """How many lines a function has beside its docstring."""
    first = function.body[0]
    told = isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant)
    return function.end_lineno - function.lineno + 1 - (first.end_lineno - first.lineno + 1 if told else 0)


def test_modules_and_functions_are_short_enough_to_be_read_at_once():
    for path, text in _modules():
        assert text.count("\n") <= 450, path
        functions = [each for each in ast.walk(ast.parse(text)) if isinstance(each, ast.FunctionDef)]
        assert all(_lines(each) <= 60 for each in functions), (
            path,
            [each.name for each in functions if _lines(each) > 60],
        )


def test_a_name_is_one_class():
    found = [
        (each.name, path)
        for path, text in _modules()
        if "src" in path.parts
        for each in ast.parse(text).body
        if isinstance(each, ast.ClassDef) and not each.name.startswith("_")
    ]
    names = Counter(name for name, _ in found)
    assert not [each for each in found if names[each[0]] > 1]
