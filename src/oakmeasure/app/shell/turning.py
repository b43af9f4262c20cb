"""The leaf turned on the board: what is dragged, keyed and slid there, and the picture that follows from it."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QSignalBlocker, Qt, Signal
from PySide6.QtWidgets import QLabel, QSlider, QToolButton

from oakmeasure.app.canvas.canvas import Canvas
from oakmeasure.app.forms.choice_box import ChoiceBox
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.make.room import MakeRoom
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.turned.turn import CUT_HANDLE, CutWay, Turn
from oakmeasure.core.drawings.views import HardwarePage, LeafPage, MakePage
from oakmeasure.core.figures.check import Stage
from oakmeasure.language import tr

if TYPE_CHECKING:
    from oakmeasure.core.drawings.turned.scene import Scene

DEGREES_A_PX = 0.4
PAGES: dict[Stage, tuple[str, ...]] = {
    Stage.LEAF: (LeafPage.SET_OUT, LeafPage.JOINTS),
    Stage.HARDWARE: (HardwarePage.HINGES, HardwarePage.GEAR, HardwarePage.LOCKS, HardwarePage.CLASHES),
    Stage.MAKE: (MakePage.STEPS,),
}  # whose board can show the leaf turned
SCENES_KEPT = 8  # steps that one goes back to without waiting
HINT = "drag to turn · arrow keys · 0 puts it back"


class TurnRoom(QObject):
    """From where the leaf is seen, how far it is apart and where it is cut: no edit, and kept while the job is open."""

    changed = Signal()
    switched = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.is_on = False
        self.turn = Turn()
        self._scene: Scene | None = None
        self._steps: list[Scene] = []

    def switch(self, is_on: bool) -> None:
        """Show the leaf turned, or as it is drawn."""
        if is_on is not self.is_on:
            self.is_on = is_on
            self.switched.emit()

    def set_turn(self, turn: Turn) -> None:
        """See it from elsewhere, apart or cut."""
        if turn != self.turn:
            self.turn = turn
            self.changed.emit()

    def turned(self, right: float, down: float) -> None:
        """Turn the leaf as it was dragged, px: to the right about its height, downwards to look down on it."""
        self.set_turn(self.turn.turned(-DEGREES_A_PX * right, DEGREES_A_PX * down))

    def put_back(self) -> None:
        """Show it as at first: turned as it was, and whole; where it is cut it stays cut."""
        self.set_turn(Turn(cut=self.turn.cut, cut_at=self.turn.cut_at))

    def drawing(self) -> Drawing:
        """Return the leaf in hand as it is turned; its pieces are set out anew only when they changed."""
        from oakmeasure.core.drawings.turned.scene import scene_of
        from oakmeasure.core.drawings.turned.turned_view import for_hand, turned_view

        solved, show = self._session.solved, self._session.show
        turn = for_hand(solved, self.turn)
        if solved.body is not None and (self._scene is None or not self._scene.is_for(solved.body, turn)):
            self._scene = scene_of(solved.body, turn, self._scene)
        return turned_view(solved, show, turn, self._scene)

    def played(self) -> Drawing:
        """Return the pieces of the leaf in hand as they lie after the step in hand, turned as the leaf is."""
        from oakmeasure.core.drawings.turned.scene import scene_played
        from oakmeasure.core.drawings.turned.step_view import step_view
        from oakmeasure.core.drawings.turned.turned_view import for_hand

        room = self._session.room(MakeRoom)
        played, op = room.played(), room.op()
        assert op is not None
        turn = for_hand(self._session.solved, replace(self.turn, apart=0.0, cut=CutWay.NONE))
        scene = next((each for each in self._steps if each.is_for(played.body, turn)), None)
        if scene is None:
            scene = scene_played(played, turn)
            self._steps = [scene, *self._steps[: SCENES_KEPT - 1]]
        return step_view(played, op, self._session.show, turn, scene)


class TurnBar:
    """What stands over the board for it, and what the pointer does on the board."""

    def __init__(self, session: Session, board: Canvas) -> None:
        self._session, self._board = session, board
        self.room = session.room(TurnRoom)
        self._taken: tuple[float, float] | None = None
        self.button = QToolButton()
        self.button.setObjectName("turnLeaf")
        self.button.setProperty("role", "page")
        self.button.setText(tr("Turn"))
        self.button.setCheckable(True)
        self.button.setToolTip(tr("shows the leaf askew: turned, taken apart, cut open; Ctrl+T"))
        self.apart_label = QLabel()
        self.apart = QSlider(Qt.Orientation.Horizontal)
        self.apart.setObjectName("apart")
        self.apart.setAccessibleName(tr("how far the leaf is taken apart"))
        self.apart.setRange(0, 100)
        self.apart.setFixedWidth(130)
        self.cut = ChoiceBox()
        self.cut.setObjectName("cutOpen")
        self.cut.setAccessibleName(tr("how the leaf is cut open"))
        self.cut.setProperty("narrow", True)
        self.cut.setFixedWidth(150)
        self.steps = QSlider(Qt.Orientation.Horizontal)
        self.steps.setObjectName("steps")
        self.steps.setAccessibleName(tr("which step is played"))
        self.steps.setPageStep(1)
        self.steps.setFixedWidth(200)
        self.widgets = (self.steps, self.apart_label, self.apart, self.cut, self.button)
        self.steps.valueChanged.connect(self._step)
        self.button.toggled.connect(self.room.switch)
        self.apart.valueChanged.connect(lambda percent: self._set(apart=percent / 100))
        self.cut.activated.connect(lambda at: self._set(cut=list(CutWay)[at], cut_at=0.5))
        board.turned.connect(self.room.turned)
        board.put_back.connect(self.room.put_back)
        board.handle_taken.connect(self._grip_taken)
        board.handle_moved.connect(self._grip_moved)

    def is_shown(self, stage: Stage, page: str) -> bool:
        """Show what belongs to a page of a stage; return whether its board shows the leaf turned."""
        can, turn = page in PAGES.get(stage, ()) and self._session.solved.body is not None, self.room.turn
        can = can and (stage is not Stage.MAKE or self._session.room(MakeRoom).op() is not None)
        on = can and self.room.is_on
        self.button.setVisible(can)
        self.cut.offer([str(each) for each in CutWay])
        with QSignalBlocker(self.button), QSignalBlocker(self.apart):
            self.button.setChecked(self.room.is_on)
            self.apart.setValue(round(100 * turn.apart))
        self.cut.setCurrentIndex(list(CutWay).index(turn.cut))
        makes = stage is Stage.MAKE and can
        self._show_steps(makes)
        self.apart_label.setText(tr(f"apart {100 * turn.apart:.0f} %"))
        for each in (self.apart, self.apart_label):
            each.setVisible(on and not makes)
        self.cut.setVisible(on and not makes)
        self._board.set_turns(on, tr(HINT))
        return on

    def _show_steps(self, are_shown: bool) -> None:
        """Show how far the steps are played."""
        room = self._session.room(MakeRoom)
        op, operations = room.op(), room.operations
        are_shown = are_shown and op is not None
        self.steps.setVisible(are_shown)
        if are_shown and op is not None:
            with QSignalBlocker(self.steps):
                self.steps.setRange(1, len(operations))
                self.steps.setValue(operations.index(op) + 1)

    def _step(self, number: int) -> None:
        """Go to a step, and show what it does to the pieces."""
        operations = self._session.room(MakeRoom).operations
        if 1 <= number <= len(operations):
            self.room.switch(True)
            self._session.room(MakeRoom).take(operations[number - 1].id)

    def _set(self, **changes: object) -> None:
        self.room.set_turn(replace(self.room.turn, **changes))  # type: ignore[arg-type]

    def _grip_taken(self, handle: str, x: float, y: float) -> None:
        self._taken = (x, y) if handle == CUT_HANDLE else None

    def _grip_moved(self, handle: str, x: float, y: float) -> None:
        if handle == CUT_HANDLE and self._taken is not None:
            from oakmeasure.core.drawings.turned.turned_view import cut_dragged

            share = cut_dragged(self._session.solved, self.room.turn, self._taken, (x, y))
            self._taken = (x, y)
            self._set(cut_at=share)
