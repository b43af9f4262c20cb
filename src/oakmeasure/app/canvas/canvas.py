"""The drawing board: shows a core drawing, lights up what is pointed at, edits a dimension where it stands."""

from __future__ import annotations

from itertools import pairwise

from PySide6.QtCore import QEvent, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QLabel, QLineEdit, QWidget

from oakmeasure.app.canvas.label_places import View, dimension_box, fitted, label_box
from oakmeasure.app.canvas.painter import paint, paint_shape
from oakmeasure.app.shell import theme
from oakmeasure.core.drawings.drawing import Area, Dimension, Drawing, Label, Shape
from oakmeasure.core.leaf.part import Rect
from oakmeasure.language import tr

REACH_PX = 6.0  # how near a line must be to be pointed at
EDGE_PX = 22.0
KEYS_SAID = "arrows go from part to part, Enter asks for one or writes a size, plus and minus make it larger or smaller"


class Canvas(QWidget):
    """Signals: `pointed(ref)` on hover, `figure_asked(name)` and `part_asked(ref)` on click, `resized`;
    `handle_taken(ref, x, y)` when a handle is taken hold of and `handle_moved(ref, x, y)` while it is dragged, to a
    place on the drawing in mm; `turned(right, down)`, px, and `put_back` where what it shows can be turned.

    A dimension that sets a field opens a box where it stands; `commit(path, text)` must return "" or the reason
    for refusing it. By keyboard: the arrows light one thing after the other, Enter does what a click does.
    """

    pointed = Signal(str)
    figure_asked = Signal(str)
    part_asked = Signal(str)
    handle_taken = Signal(str, float, float)
    handle_moved = Signal(str, float, float)
    resized = Signal()
    turned = Signal(float, float)
    put_back = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("board")
        self.setMouseTracking(True)
        self.setMinimumSize(300, 260)
        self.setAccessibleName(tr("drawing board"))
        self.setAccessibleDescription(tr(KEYS_SAID))
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)  # a click on it leaves the cursor in its box
        self.commit = lambda _path, _text: ""
        self.drawing = Drawing((), Rect(0, 0, 1, 1))
        self.lit = ""
        self._view = View(1, 0, 0)
        self._own_view = False  # the person zoomed or moved it
        self._base: QPixmap | None = None
        self._dragged_from: QPointF | None = None
        self._handle = ""
        self._hint = ""  # where the drawing can be turned: how that is done
        self._turned_from: QPointF | None = None
        self._pressed: Shape | None = None
        self._editing: Dimension | None = None
        self._box = QLineEdit(self)
        self._box.setObjectName("boardEntry")
        self._box.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._box.hide()
        self._box.installEventFilter(self)
        self._box.returnPressed.connect(self._commit)
        self._message = QLabel(self)
        self._message.setObjectName("boardMessage")
        self._message.setProperty("role", "refused")
        self._message.hide()

    # --- what is shown -------------------------------------------------------------------------------------

    def set_drawing(self, drawing: Drawing, *, keep_view: bool = False) -> None:
        """Show a drawing; the view is kept when asked, so that an edit does not jump."""
        self.drawing = drawing
        if not (keep_view and self._own_view):
            self._own_view = False
            self._fit()
        self._base = None
        self.close_entry()
        self.update()

    def set_turns(self, turns: bool, hint: str) -> None:
        """Let dragging and the arrow keys turn what is shown, or move over it; `hint` says so at its foot."""
        self._hint = hint if turns else ""
        self.setAccessibleDescription(tr(KEYS_TURN if turns else KEYS_SAID))

    def set_lit(self, ref: str) -> None:
        if ref != self.lit:
            self.lit = ref
            self.update()

    def _fit(self) -> None:
        room = QRectF(self.rect()).adjusted(EDGE_PX, EDGE_PX - 6, -EDGE_PX, -EDGE_PX)
        if room.width() > 20 and room.height() > 20:
            self._view = fitted(self.drawing, room)

    def fit_again(self) -> None:
        """Show the whole drawing."""
        self._own_view = False
        self._fit()
        self._base = None
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        if not self._own_view:
            self._fit()
        self._base = None
        self.close_entry()
        super().resizeEvent(event)
        self.resized.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._base is None:
            ratio = self.devicePixelRatioF()
            self._base = QPixmap(int(self.width() * ratio), int(self.height() * ratio))
            self._base.setDevicePixelRatio(ratio)
            self._base.fill(QColor(theme.palette().ground))
            base = QPainter(self._base)
            paint(base, self.drawing, self._view)
            base.end()
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self._base)
        if self.lit:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            accent = QColor(theme.palette().accent)
            for shape in self.drawing.shapes:
                if _shows(shape, self.lit):
                    paint_shape(painter, shape, self._view, colour=accent)
        if self._hint:
            painter.setFont(theme.font(13))
            painter.setPen(QColor(theme.palette().pencil))
            painter.drawText(QPointF(14, self.height() - 12), self._hint)
        if self.hasFocus():
            painter.setPen(QPen(QColor(theme.palette().accent), 2))
            painter.drawRect(QRectF(self.rect()).adjusted(2, 2, -2, -2))
        painter.end()

    # --- pointing --------------------------------------------------------------------------------------------

    def shape_at(self, at: QPointF) -> Shape | None:
        """Return the topmost shape under a px point that shows something."""
        for shape in reversed(self.drawing.shapes):
            if isinstance(shape, Dimension):
                if dimension_box(shape, self._view).adjusted(-4, -4, 4, 4).contains(at):
                    return shape
            elif not shape.ref:
                continue
            elif isinstance(shape, Label):
                if label_box(shape, self._view).contains(at):
                    return shape
            elif isinstance(shape, Area):
                if self._view.polygon(shape.points).containsPoint(at, Qt.FillRule.OddEvenFill):
                    return shape
            elif _near(at, [self._view.at(each) for each in shape.points]):
                return shape
        return None

    def place_of(self, ref: str) -> QPointF | None:
        """Return the px middle of the first shape that shows `ref`, or None."""
        for shape in self.drawing.shapes:
            if not _shows(shape, ref):
                continue
            if isinstance(shape, Dimension):
                return dimension_box(shape, self._view).center()
            if isinstance(shape, Label):
                return label_box(shape, self._view).center()
            return self._view.polygon(shape.points).boundingRect().center()
        return None

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._handle:
            self.handle_moved.emit(self._handle, *self._view.back(at))
            return
        if self._turned_from is not None:
            moved = at - self._turned_from
            if self._pressed is None or moved.manhattanLength() > REACH_PX:
                self._turned_from, self._pressed = at, None
                self.turned.emit(moved.x(), moved.y())
            return
        if self._dragged_from is not None:
            moved = at - self._dragged_from
            self._view = View(self._view.scale, self._view.x + moved.x(), self._view.y + moved.y())
            self._dragged_from = at
            self._own_view = True
            self._base = None
            self.close_entry()
            self.update()
            return
        shape = self.shape_at(at)
        hand = isinstance(shape, Dimension) or shape is not None
        self.setCursor(Qt.CursorShape.PointingHandCursor if hand else Qt.CursorShape.ArrowCursor)
        self.pointed.emit(_ref_of(shape))

    def leaveEvent(self, event: QEvent) -> None:
        self.pointed.emit("")
        super().leaveEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.close_entry()
        shape = self.shape_at(event.position())
        if shape is not None and shape.ref.startswith("handle:"):
            self._handle = shape.ref
            self.handle_taken.emit(shape.ref, *self._view.back(event.position()))
            return
        if self._hint and event.button() is Qt.MouseButton.LeftButton:
            self._turned_from, self._pressed = event.position(), shape
            return
        if event.button() is Qt.MouseButton.MiddleButton or shape is None:
            self._dragged_from = event.position()
            return
        self._ask(shape)

    def _ask(self, shape: Shape) -> None:
        """Ask for what a shape shows; a size that sets a field is written where it stands."""
        if isinstance(shape, Dimension):
            if shape.figure:
                self.figure_asked.emit(shape.figure)
            if shape.edit:
                self.open_entry(shape)
        elif shape.ref.startswith("figure:"):
            self.figure_asked.emit(shape.ref.partition(":")[2])
        else:
            self.part_asked.emit(shape.ref)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        pressed, self._pressed = self._pressed, None
        self._dragged_from = self._turned_from = None
        if pressed is not None:  # not dragged: a click
            self._ask(pressed)
        self._handle = ""

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self.shape_at(event.position()) is None:
            self.fit_again()

    def wheelEvent(self, event: QWheelEvent) -> None:
        factor = 1.0015 ** event.angleDelta().y()
        if 0.02 < self._view.scale * factor < 40:
            self._view = self._view.zoomed(factor, event.position())
            self._own_view = True
            self._base = None
            self.close_entry()
            self.update()

    # --- by keyboard -----------------------------------------------------------------------------------------

    def things(self) -> dict[str, Shape]:
        """Return everything on the drawing that can be asked for, once each, in the order in which it is drawn.

        Of a part and a size of it the size, where that can be written.
        """
        found: dict[str, Shape] = {}
        for shape in self.drawing.shapes:
            ref = _ref_of(shape)
            if ref and ref != "figure:" and not ref.startswith("handle:"):
                known = found.setdefault(ref, shape)
                if isinstance(shape, Dimension) and shape.edit and not isinstance(known, Dimension):
                    found[ref] = shape
        return found

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        step = (PAGE_STEPS if self._hint else STEPS).get(key)
        if step is not None:
            self._go_on(step)
        elif self._hint and key in TURNS:
            self.turned.emit(*TURNS[key])
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            shape = self.things().get(self.lit)
            if shape is not None:
                self._ask(shape)
        elif event.key() == Qt.Key.Key_Escape:
            self.pointed.emit("")
        elif event.text() in ("+", "-"):
            middle = QRectF(self.rect()).center()
            self._view = self._view.zoomed(1.25 if event.text() == "+" else 0.8, middle)
            self._own_view, self._base = True, None
            self.update()
        elif event.text() == "0":
            self.fit_again()
            self.put_back.emit()
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.setAccessibleName(tr("drawing board"))
        super().focusOutEvent(event)

    def _go_on(self, step: int) -> None:
        """Light the next thing, or the one before; a screen reader is told its name and how many there are."""
        refs = list(self.things())
        if not refs:
            return
        at = (refs.index(self.lit) + step) % len(refs) if self.lit in refs else (0 if step > 0 else len(refs) - 1)
        self.pointed.emit(refs[at])
        self.setAccessibleName(
            tr(f"{in_words(refs[at], self.things()[refs[at]])}, {at + 1} of {len(refs)} on the drawing")
        )

    # --- editing where it stands -------------------------------------------------------------------------------

    def open_entry(self, dimension: Dimension) -> None:
        """Open a box over a dimension, its value selected."""
        self._editing = dimension
        box = dimension_box(dimension, self._view)
        width = max(96, int(box.width()) + 40)
        centre = box.center()
        x = min(max(int(centre.x() - width / 2), 4), self.width() - width - 4)
        self._box.setGeometry(x, int(centre.y() - 17), width, 34)
        self._box.setText(dimension.text)
        self._style(refused=False)
        self._box.show()
        self._box.setFocus()
        self._box.selectAll()

    def close_entry(self) -> None:
        self._editing = None
        self._box.hide()
        self._message.hide()

    def _style(self, *, refused: bool) -> None:
        p = theme.palette()
        edge = p.stop if refused else p.accent
        self._box.setStyleSheet(
            f"background: {p.sheet}; border: 2px solid {edge}; border-radius: 4px; font-size: 17px; font-weight: 600;"
        )
        self._message.setStyleSheet(f"background: {p.sheet}; padding: 3px 6px; border: 1px solid {p.stop};")

    def _commit(self) -> None:
        if self._editing is None:
            return
        reason = self.commit(self._editing.edit, self._box.text())
        if not reason:
            self.close_entry()
            self.setFocus()
            return
        self._style(refused=True)
        self._message.setText(tr(reason))
        self._message.adjustSize()
        x = min(self._box.x(), self.width() - self._message.width() - 4)
        self._message.move(max(x, 4), self._box.y() + self._box.height() + 3)
        self._message.show()
        self._message.raise_()

    def eventFilter(self, watched: object, event: QEvent) -> bool:
        if watched is self._box and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:  # type: ignore[attr-defined]
            self.close_entry()
            return True
        return False


KEYS_TURN = "arrows turn the leaf, 0 puts it back, Page Up and Page Down go from piece to piece, Enter asks for one"
TURN_PX = 15.0  # of dragging, that an arrow key stands for
TURNS = {
    Qt.Key.Key_Left: (-TURN_PX, 0.0),
    Qt.Key.Key_Right: (TURN_PX, 0.0),
    Qt.Key.Key_Up: (0.0, -TURN_PX),
    Qt.Key.Key_Down: (0.0, TURN_PX),
}
PAGE_STEPS = {Qt.Key.Key_PageDown: 1, Qt.Key.Key_PageUp: -1}
STEPS = {Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1}


def in_words(ref: str, shape: Shape) -> str:
    """Return what a thing on the drawing is called: "hinge stile", "leaf width 762"."""
    name = ref.partition(":")[2].replace("_", " ").replace(".", " ") or ref
    return f"{name} {shape.text}" if isinstance(shape, Dimension) else name


def _ref_of(shape: Shape | None) -> str:
    if shape is None:
        return ""
    if isinstance(shape, Dimension) and not shape.ref:
        return f"figure:{shape.figure}"
    return shape.ref


def _shows(shape: Shape, ref: str) -> bool:
    if shape.ref == ref:
        return True
    if ref == "part:panel":
        return shape.ref.startswith("part:") and shape.ref.endswith("panel")
    return isinstance(shape, Dimension) and ref == f"figure:{shape.figure}"


def _near(at: QPointF, points: list[QPointF]) -> bool:
    for a, b in pairwise(points):
        dx, dy = b.x() - a.x(), b.y() - a.y()
        length = dx * dx + dy * dy
        share = 0.0 if length == 0 else ((at.x() - a.x()) * dx + (at.y() - a.y()) * dy) / length
        share = min(max(share, 0.0), 1.0)
        if abs(at.x() - a.x() - share * dx) + abs(at.y() - a.y() - share * dy) < REACH_PX:
            return True
    return False
