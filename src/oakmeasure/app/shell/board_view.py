"""What the board of a stage shows of the leaf in hand, by the page that is open."""

from __future__ import annotations

from oakmeasure.app.shell.session import Session
from oakmeasure.core.drawings import views
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.leaf.beside_view import beside_view
from oakmeasure.core.figures.check import Stage


def drawing_of(session: Session, page: str, *, exaggeration: float, opened: float, has_room_for_words: bool) -> Drawing:
    """Return the leaf as a page of its stage shows it; pages that have a room of their own are that room's to draw.

    exaggeration: how many times crookedness is drawn. opened: how far the leaf is opened, 0 to 1.
    """
    stage = session.stage
    options: dict[str, object] = {}
    if stage is Stage.MEASURE:
        options = {"exaggeration": exaggeration, "page": views.MeasurePage(page)}
    elif stage is Stage.FIT:
        options = {"page": views.FitPage(page), "opened": opened}
    elif stage is Stage.TIMBER:
        options = {"page": views.TimberPage(page)}
    elif stage is Stage.HARDWARE:
        options = {"page": views.HardwarePage(page)}
    elif stage is Stage.LEAF:
        if page == views.LeafPage.OTHER:
            return beside_view(session.beside(), session.show)
        options = {"page": views.LeafPage(page), "title": has_room_for_words}
    return views.VIEWS[stage](session.solved, session.show, **options)
