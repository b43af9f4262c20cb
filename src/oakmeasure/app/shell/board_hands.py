"""What is done on the board with the pointer: handles dragged, sizes written over, parts asked about."""

from __future__ import annotations

from oakmeasure.app.forms.quantity_edit import read
from oakmeasure.app.shell import titles
from oakmeasure.app.shell.centre import Middle
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.timber.room import TimberRoom
from oakmeasure.core.base.errors import LengthError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.drawings.turned.turn import CUT_HANDLE
from oakmeasure.core.drawings.views import opened_by
from oakmeasure.core.edits.drag import DragEdit, dragged, dragged_butt, dragged_cup
from oakmeasure.core.figures.check import Stage
from oakmeasure.language import tr


class BoardHands:
    """Turns what the pointer does on the board into edits and workings."""

    def __init__(self, session: Session, timber: TimberRoom, middle: Middle) -> None:
        self._session, self._timber, self._middle = session, timber, middle

    def move_handle(self, handle: str, x: float, y: float) -> None:
        """Open the leaf as far as its handle is dragged, or set a rail where it is dragged to."""
        name = handle.removeprefix("handle:")
        if handle == CUT_HANDLE:
            return  # the turned leaf's own
        if self._session.stage is Stage.TIMBER:
            self._timber.dragged(handle, x, y)
            return
        if self._session.stage is Stage.LEAF:
            self._drop(
                dragged(self._session.solved, name, y), f"The leaf, set out: {name}", titles.BOARD_WORDS[Stage.LEAF]
            )
            return
        if self._session.stage is Stage.HARDWARE:
            drag = dragged_cup if name.startswith("cup") else dragged_butt
            drop = drag(self._session.solved, int(name.rpartition(" ")[2]), y)
            self._drop(drop, f"Hinges: {name}", titles.BOARD_WORDS[Stage.HARDWARE])
            return
        self._middle.opened.setValue(round(180 * opened_by(self._session.solved, x, y)))

    def _drop(self, drop: DragEdit | None, words: str, otherwise: str) -> None:
        """Take the edit of what is dragged, and say what it snapped to."""
        if drop is not None:
            self._session.edit(drop.path, drop.value, nudge=True)
            self._middle.title.setText(tr(f"{words} at {drop.words}" if drop.words else otherwise))

    def commit(self, path: str, text: str) -> str:
        """Take what was written over a dimension. Returns "" or the reason for refusing it."""
        signed = path.startswith(("readings.lean", "readings.sill", "readings.head"))
        try:
            value = read(text, Unit.MM, self._session.show, signed=signed)
        except LengthError as error:
            return str(error)
        return self._session.edit(path, value)

    def ask(self, ref: str) -> None:
        """Show the working of what was clicked: a part's length, a reading, a butt's place."""
        kind, _, name = ref.partition(":")
        solved = self._session.solved
        self._session.light(ref)
        if kind == "part":
            for part in solved.cut_parts:
                if part.name == name:
                    self._session.show_working(part.length.name)
        elif kind == "tick" and name.isdigit():
            self._turn_tick(int(name) - 1)
        else:
            figures = {
                "thing": f"in_the_way_{name}",
                "floor": f"floor_{name}",
                "reading": f"reading_{name}",
                "butt": f"butt_{name}_top",
                "cup": f"cup_{name}",
                "plate": f"cup_{name}_plate",
            }
            self._session.show_working(figures.get(kind, ""))

    def _turn_tick(self, at: int) -> None:
        """Take a tick out, or in again."""
        template = self._session.leaf.template
        if template is not None and at < len(template.ticks):
            self._session.edit(f"template.ticks.{at}.excluded", not template.ticks[at].excluded)
