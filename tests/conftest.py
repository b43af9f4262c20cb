"""Shared pieces of the tests: sample jobs and an application that leaves nothing behind."""

from __future__ import annotations

import gc
import os
import tempfile

import pytest
from _pytest.doctest import DoctestModule
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
# The job book, journals, earlier saves and settings of the tests are nobody's own, nor do tests read anybody's.
for each in ("XDG_DATA_HOME", "XDG_STATE_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME"):
    os.environ[each] = tempfile.mkdtemp(prefix="oak-measure-tests-")
# The suite's own machine may be slow or busy: no example is ever failed for its time. EXAMPLES=1000 looks deeper.
EXAMPLES = int(os.environ.get("EXAMPLES", "0"))
settings.register_profile("suite", deadline=None, max_examples=EXAMPLES or 40, derandomize=not EXAMPLES)
settings.load_profile("suite")


@pytest.hookimpl(wrapper=True)
def pytest_collect_file():
    """Look for doctests in src alone: for them every file of tests would be read and rewritten a second time."""
    found = yield
    return [each for each in found if not isinstance(each, DoctestModule)]


def pytest_collection_finish():
    """All that was imported stays: the collector need not walk through it again after every window."""
    gc.collect()
    gc.freeze()


@pytest.fixture(scope="session")
def demo():
    """The job that ships with the application: frozen, so that all tests have the same one."""
    from oakmeasure.data import text
    from oakmeasure.files.job.job_file import loads

    return loads(text("demo.oakjob"))


@pytest.fixture(scope="session")
def solved_demo(demo):
    """The job that ships with the application, worked out: as frozen."""
    from oakmeasure.core.solver import solve

    solved = solve(demo)
    gc.freeze()  # it stays to the end
    return solved
