"""Working out what is missing of the leaves before a list of all of them: bit by bit, with progress, to be stopped."""

from __future__ import annotations

from PySide6.QtCore import QCoreApplication, Qt
from PySide6.QtWidgets import QProgressDialog, QWidget

from oakmeasure.app.shell.session import Session
from oakmeasure.core.solution import Solution
from oakmeasure.language import tr


def every_leaf(parent: QWidget, session: Session) -> Solution | None:
    """Return the solution of the whole job; None where it was stopped before that.

    A leaf takes some 20 ms: the window is painted between any two of them. A thread was tried: both want Python's one
    lock, and the window stood for 1.9 s of 3.4; a process cannot hand back the remedies, which are functions.
    """
    job = session.job
    if not session.solution.next_missing():
        return session.whole()
    box = QProgressDialog(tr("Working out the leaves"), tr("Stop"), 0, len(job.leaves), parent)
    box.setWindowTitle(tr("All leaves"))
    box.setWindowModality(Qt.WindowModality.WindowModal)
    box.setMinimumDuration(200)
    done = len(session.worked_out())
    try:
        while missing := session.solution.next_missing():
            box.setLabelText(tr(f"Working out {job.leaf(missing).name}"))
            session.solution.leaf(missing)
            done += 1
            box.setValue(min(done, len(job.leaves)))
            QCoreApplication.processEvents()
            if box.wasCanceled() or session.job is not job:
                return None
    finally:
        box.close()
        box.deleteLater()
    return session.whole()
