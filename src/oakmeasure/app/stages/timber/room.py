"""What the Timber pages of the whole job show and do: rack, plan, veneers, drying, cost.

The window asks it for drawing, list and words; clicks and drags come back to it.
"""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer, Signal

from oakmeasure.app.commands.planner import Planner
from oakmeasure.app.shell.part_lists import Listed
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.timber.lists import buy_list, drying_list, price_list, rack_list, veneer_list
from oakmeasure.app.stages.timber.plan_strip import PlanStrip
from oakmeasure.core.costing.pricing import buy_ways, price_of, wood_of_one
from oakmeasure.core.document.stock import Board, Face
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.timber.drying_view import drying_view
from oakmeasure.core.drawings.timber.plan_view import empty_view, pages_of, piece_ref, plan_view, stock_ref
from oakmeasure.core.drawings.timber.price_view import price_view
from oakmeasure.core.drawings.timber.stock_view import rack_view
from oakmeasure.core.drawings.timber.veneer_view import veneer_view
from oakmeasure.core.drawings.views import TimberPage
from oakmeasure.core.edits import stock_edits
from oakmeasure.core.planning.job_plan import needs, overdrawn, pins_missed, with_cut
from oakmeasure.core.planning.plan_model import CutStock, JobPlan, LotPlan, PlacedPiece
from oakmeasure.core.planning.veneer_plan import veneer_plan
from oakmeasure.core.timber.drying import trend
from oakmeasure.core.timber.place import at_rest, rests_at

MANY = 3  # leaves still to be worked out, that a plan waits for rather than the window
REPLAN_MS = 700  # after the last edit, before the wood is planned anew
PAGES = (TimberPage.RACK, TimberPage.PLAN, TimberPage.VENEERS, TimberPage.DRYING, TimberPage.COST)


class TimberRoom(QObject):
    """Signal `changed`: what is shown has changed without an edit."""

    changed = Signal()

    def __init__(self, session: Session, strip: PlanStrip) -> None:
        super().__init__()
        self.session, self.strip = session, strip
        self.planner = Planner(self)
        self.lot, self.page_of_lot, self.picked = 0, 0, ""
        self._planned_for: tuple[object, ...] = ()
        self._page = TimberPage.BOARDS
        self._start: stock_edits.Spot | None = None
        self._drawing = -1
        self._wait = QTimer(self)
        self._wait.setSingleShot(True)
        self._wait.setInterval(REPLAN_MS)
        self._wait.timeout.connect(self.replan)
        self.planner.changed.connect(self._told)
        self.planner.ticked.connect(self._show_strip)
        self._waits_for_leaves = False
        session.others_known.connect(self._leaves_known)
        strip.stopped.connect(self.planner.stop)
        strip.asked.connect(self.replan)
        strip.lot_chosen.connect(self._choose_lot)
        strip.turned.connect(self.turn)
        strip.done.connect(self._do)

    # --- planning ----------------------------------------------------------------------------------------

    def _rests_on(self) -> tuple[object, ...]:
        job = self.session.job
        leaf = self.session.leaf_id if job.cutting.one_leaf else ""
        return (job.boards, job.sections, job.sheets, job.cutting, job.rules, job.leaves, leaf)

    def show_page(self, page: TimberPage) -> None:
        """Take note of the page that is shown; a plan that is not of the job as it is now is begun anew."""
        self._page = page
        if page in (TimberPage.PLAN, TimberPage.COST) and self._planned_for != self._rests_on():
            if self._planned_for:
                self._wait.start()
            else:
                self.replan()

    def replan(self) -> None:
        """Plan the wood of the job as it is now."""
        self._wait.stop()
        job = self.session.job
        if not job.cutting.one_leaf and len(job.leaves) - len(self.session.worked_out()) > MANY:
            self._waits_for_leaves = True  # they are worked out meanwhile, leaf by leaf
            return
        self._waits_for_leaves = False
        self._planned_for = self._rests_on()
        leaves = (self.session.solved,) if job.cutting.one_leaf else self.session.whole().leaves
        self.planner.start(job, needs(job, leaves))

    def _leaves_known(self) -> None:
        if self._waits_for_leaves:
            self.replan()

    def leave(self) -> None:
        """End what runs; the window closes."""
        self._wait.stop()
        self.planner.stop()

    def _told(self) -> None:
        self._show_strip()
        if self._page in (TimberPage.PLAN, TimberPage.COST):
            self.changed.emit()

    def plan(self) -> JobPlan | None:
        """Return the best plan so far."""
        return self.planner.plan()

    def shown_lot(self) -> LotPlan | None:
        """Return the wood that is looked at."""
        plan = self.plan()
        if plan is None or not plan.lots:
            return None
        return plan.lots[min(self.lot, len(plan.lots) - 1)]

    def share_of(self, leaf_id: str) -> float | None:
        """Return what the wood of one leaf costs in the plan of the job; None while that is not of the job as it is."""
        plan = self.plan()
        if plan is None or self.planner.missing or self._planned_for != self._rests_on():
            return None
        return wood_of_one(plan, self.session.solved)

    # --- what is shown -----------------------------------------------------------------------------------

    def drawing(self, page: TimberPage) -> Drawing:
        """Return the drawing of a page of the whole job."""
        session = self.session
        job, show, at = session.job, session.show, session.board_in_hand()
        if page is TimberPage.RACK:
            return rack_view(job, show, board=at if at is not None else -1, mark=session.mark)
        if page is TimberPage.PLAN:
            lot = self.shown_lot()
            if lot is None:
                if self._waits_for_leaves:
                    return empty_view("working out the leaves first")
                return empty_view("looking for a first plan" if self.planner.is_running else "nothing to cut")
            return plan_view(lot, show, page=self.page_of_lot, leaf_id=session.leaf_id, chosen=self.picked)
        if page is TimberPage.VENEERS:
            return veneer_view(session.solved, veneer_plan(session.solved, show), show)
        if page is TimberPage.DRYING:
            if at is None:
                return empty_view("no boards on the rack yet")
            board = job.boards[at]
            return drying_view(
                board, trend(board.readings, rests_at(session.leaf.timber)), at_rest(session.leaf.timber)
            )
        share = self.share_of(session.leaf_id)
        return price_view(price_of(job, session.solved, timber=share), buy_ways(job, session.solved))

    def listed(self, page: TimberPage) -> Listed | None:
        """Return what stands under the drawing of a page."""
        session = self.session
        if page is TimberPage.RACK:
            return rack_list(session.job, session.show, session.leaf.timber)
        if page is TimberPage.PLAN:
            return buy_list(self.plan(), session.show)
        if page is TimberPage.VENEERS:
            return veneer_list(veneer_plan(session.solved, session.show), session.show)
        if page is TimberPage.DRYING:
            return drying_list(session.job, session.leaf.timber)
        share = self.share_of(session.leaf_id)
        return price_list(price_of(session.job, session.solved, timber=share), buy_ways(session.job, session.solved))

    def title(self, page: TimberPage) -> str:
        """Return the words over the drawing."""
        job, at = self.session.job, self.session.board_in_hand()
        name = job.boards[at].label or "the board" if at is not None else "the rack"
        if page is TimberPage.PLAN:
            return self._plan_title()
        return {
            TimberPage.RACK: f"The rack: {name}",
            TimberPage.VENEERS: "Veneers, in the order that they are sawn",
            TimberPage.DRYING: f"How {name} dries",
            TimberPage.COST: "What the leaf costs",
        }[page]

    def _plan_title(self) -> str:
        plan, job = self.plan(), self.session.job
        if plan is None:
            return "The wood of the whole job"
        left = sum(many for lot in plan.lots for _, many in lot.left)
        if left and not self.planner.missing:
            first = next(each for lot in plan.lots for each, _ in lot.left)
            return f"{left} pieces find no place, first the {first.name} of {first.leaf_name}: more or longer boards"
        over = overdrawn(plan)
        if over:
            return (
                f"{over[0][0]} is planned {over[0][1]} times for two woods; there are {over[0][2]}: give it a species"
            )
        missed = pins_missed(plan, job)
        if missed:
            return f"no clear place for the {missed[0].part} on {missed[0].board}"
        return "The wood of the whole job" if not job.cutting.one_leaf else "The wood of this leaf"

    def _show_strip(self) -> None:
        planner = self.planner
        self.strip.show_plan(
            self.plan(),
            self.lot,
            self.session.show,
            progress=planner.progress if planner.is_running else None,
            missing=planner.missing,
            trouble=planner.trouble,
        )
        lot = self.shown_lot()
        pages = pages_of(lot) if lot else [()]
        at = min(self.page_of_lot, len(pages) - 1)
        first = sum(len(each) for each in pages[:at])
        self.strip.show_page(first + 1, first + len(pages[at]), sum(len(each) for each in pages))
        self._show_actions()

    def refresh(self) -> None:
        """Show strip and actions as they are now."""
        self._show_strip()

    def turn(self, by: int) -> None:
        """Turn to other boards of the wood that is looked at."""
        lot = self.shown_lot()
        last = len(pages_of(lot)) - 1 if lot else 0
        self.page_of_lot = min(max(self.page_of_lot + by, 0), last)
        self._show_strip()
        self.changed.emit()

    def _choose_lot(self, at: int) -> None:
        self.lot, self.page_of_lot, self.picked = at, 0, ""
        self._show_strip()
        self.changed.emit()

    # --- what is clicked ---------------------------------------------------------------------------------

    def _picked(self) -> tuple[CutStock | None, PlacedPiece | None]:
        """Return the board that was clicked, or the piece with its board."""
        lot = self.shown_lot()
        for stock in lot.stock if lot else ():
            if stock_ref(stock) == self.picked:
                return stock, None
            for each in stock.pieces:
                if piece_ref(each) == self.picked:
                    return stock, each
        return None, None

    def _show_actions(self) -> None:
        stock, laid = self._picked()
        if stock is None:
            self.strip.show_actions("click a board or a piece", ())
            return
        name, real = stock.source.name, stock.source.is_owned
        if laid is not None:
            pinned = any(
                (each.leaf, each.part) == (laid.wanted.leaf, laid.wanted.name) for each in self.session.job.cutting.pins
            )
            words = f"{laid.wanted.name} of {laid.wanted.leaf_name}" + (f", pinned to {name}" if pinned else "")
            can = bool(getattr(stock.source.item, "label", "")) and isinstance(stock.source.item, Board) and real
            self.strip.show_actions(words, ("unpin",) if pinned else ("pin",) if can else ())
            return
        size = self.session.show.size(stock.source.item.length, stock.source.item.width)
        label = bool(getattr(stock.source.item, "label", ""))
        self.strip.show_actions(f"{name}, {size}", (("forbid",) if real and label else ()) + ("cut",))

    def _do(self, what: str) -> None:
        """Pin what was clicked, take the pin out, leave a board out, or say that it is cut."""
        stock, laid = self._picked()
        lot, session = self.shown_lot(), self.session
        if stock is None or lot is None:
            return
        name = stock.source.name
        if what in ("pin", "unpin") and laid is not None:
            part, board = laid.wanted, name if what == "pin" else ""
            session.push(f"{what} {part.name}", lambda job: stock_edits.with_pin(job, part.leaf, part.name, board))
        elif what == "forbid":
            session.push(f"leave {name} out", lambda job: stock_edits.with_forbidden(job, name))
        elif what == "cut":
            made_of = lot.lot.made_of
            session.push(f"cut {name}", lambda job: with_cut(job, stock, made_of))
        self.picked = ""

    def clicked(self, ref: str) -> None:
        """Take what was clicked on the drawing or in the list."""
        kind, _, name = ref.partition(":")
        if kind == "rack" and name.isdigit():
            self.session.take_board(int(name))
        elif kind == "mark" and name.isdigit():
            self.session.take_mark(int(name) - 1)
        elif kind in ("stock", "piece"):
            self.picked = ref
            self._show_actions()
            self.changed.emit()

    # --- what is dragged ---------------------------------------------------------------------------------

    def taken(self, ref: str, x: float, y: float) -> None:
        """A handle, or a clear place of a board, was taken hold of."""
        at = self.session.board_in_hand()
        if at is not None:
            self._start = stock_edits.spot_on(self.session.job.boards[at], _face_of(ref), x, y)
            self._drawing = -1

    def dragged(self, ref: str, x: float, y: float) -> None:
        """Draw a new mark, move or size the one in hand, to a place on the drawing."""
        session, at = self.session, self.session.board_in_hand()
        if at is None or self._start is None:
            return
        board = session.job.boards[at]
        spot = stock_edits.spot_on(board, _face_of(ref), x, y)
        marks = list(board.marks)
        if ref.startswith("handle:new"):
            made = stock_edits.drawn_mark(
                board, self._start, spot, marks[self._drawing] if self._drawing >= 0 else None
            )
            if made is None:
                return
            if self._drawing < 0:
                marks.append(made)
                self._drawing = len(marks) - 1
            else:
                marks[self._drawing] = made
            session.mark = self._drawing
        elif 0 <= session.mark < len(marks):
            change: Callable[..., object] = (
                stock_edits.moved_mark if ref.startswith("handle:move") else stock_edits.sized_mark
            )
            marks[session.mark] = change(board, marks[session.mark], spot)  # type: ignore[call-overload]
        # One drag is one step to undo: its start is in the key.
        key = f"mark {at} {session.mark} {self._start}"
        session.push("mark a defect", lambda job: stock_edits.with_marks(job, at, tuple(marks)), key=key)


def _face_of(ref: str) -> Face:
    return Face.OTHER if ref.endswith(str(Face.OTHER)) else Face.BEST
