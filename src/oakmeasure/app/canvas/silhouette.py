"""A leaf, small and to scale, as it stands on the job line and in the schedule."""

from __future__ import annotations

from PySide6.QtCore import QRectF
from PySide6.QtGui import QPainter

from oakmeasure.app.shell import theme
from oakmeasure.core.document.job import Hand, Leaf
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import stuff
from oakmeasure.core.leaf.part import Build


def paint_parts(painter: QPainter, leaf: Leaf, build: Build, left: float, foot: float, scale: float) -> None:
    """Paint the parts of a leaf with the pen that is set, seen from the opening side. left, foot: its corner, px.

    scale: px of 1 mm.
    """
    p = theme.palette()
    mirrored = leaf.hand is Hand.RIGHT
    for part in build.parts:
        rect = part.face
        x0 = build.width - rect.x1 if mirrored else rect.x0
        box = QRectF(left + x0 * scale, foot - rect.y1 * scale, rect.width * scale, rect.height * scale)
        share = p.wood_share * (0.55 if part.role is Role.PANEL else 1.0)
        painter.setBrush(theme.mixed(stuff(part.species).tint, share, p.sheet))
        painter.drawRect(box)
