"""The chain: readings → survey → fit → build → timber → hardware → checks. One way, nothing worked out twice.

`solve(job)` is pure. `Solver` keeps the result of each leaf as long as the leaf and what it shares with the job
(rules, boards, unit) stay the same, so that an edit works out only what it touches.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import datetime

from oakmeasure.core.base.units import Show
from oakmeasure.core.body.listed import listed
from oakmeasure.core.body.of_build import body_of
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.body.weight import judge_lift, weigh
from oakmeasure.core.construction.clip_to_outline import at_edge
from oakmeasure.core.construction.late_trim import trim_late
from oakmeasure.core.construction.registry import build_leaf, leaf_ways
from oakmeasure.core.construction.shop_capacity import judge_shop
from oakmeasure.core.costing.cost import cost_up
from oakmeasure.core.cutting.leaf_plan import SAWN_ALIKE, plan_leaf
from oakmeasure.core.design import LeafDesign, pieces_sawn
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.field_path import would_change
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Job, Leaf, new_job
from oakmeasure.core.document.stock import Board
from oakmeasure.core.figures.check import Check, Checks, Level, Remedy, Stage
from oakmeasure.core.fit.alternatives import side_by_side
from oakmeasure.core.fit.bought_leaf import buy_or_make
from oakmeasure.core.fit.fit_probability import say_chance
from oakmeasure.core.fit.fit_result import Fit, add_gaps
from oakmeasure.core.fit.frame import frame_of
from oakmeasure.core.fit.gear import judge_set, place_of
from oakmeasure.core.fit.registry import fit
from oakmeasure.core.fit.swing.obstacles import swing, swings_by_itself
from oakmeasure.core.hanging.adjust import NOT_HUNG, adjust_leaf
from oakmeasure.core.hanging.checks import judge_hanging
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.hardware.clash.check_clashes import check_clashes
from oakmeasure.core.hardware.edge_tops import from_edge_tops
from oakmeasure.core.hardware.fixing_stack import judge_stack
from oakmeasure.core.hardware.hinges.butts import add_butt_figures, hang_on_butts
from oakmeasure.core.hardware.hinges.cups import add_cup_figures, hang_on_cups
from oakmeasure.core.hardware.hinges.cups import settle as settle_cups
from oakmeasure.core.hardware.hinges.hinge_set import judge_packet, set_out_template
from oakmeasure.core.hardware.hinges.screws import judge_screws
from oakmeasure.core.hardware.in_wood import in_wood
from oakmeasure.core.hardware.locks.latches import bore_bolts, bore_latch
from oakmeasure.core.hardware.locks.mortise_locks import bore_lock, bore_pull
from oakmeasure.core.hardware.old_frame import fit_old_frame
from oakmeasure.core.hardware.sliding.guides import bore_guide, cut_guide
from oakmeasure.core.hardware.sliding.hangers import hang_on_hangers
from oakmeasure.core.hardware.sliding.motion import judge_motion
from oakmeasure.core.hardware.sliding.tracks import fix_track
from oakmeasure.core.leaf.assumed import judge_assumed
from oakmeasure.core.leaf.edge_thickness import add_edge_thickness
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.making.already_cut import judge_cut_already, log_until
from oakmeasure.core.making.as_made import as_made, as_weighed, read_back, still_made, widths_read
from oakmeasure.core.making.checks import judge_making, judge_steps
from oakmeasure.core.making.sequence import Making, make
from oakmeasure.core.solution import LeafSolution, Solution
from oakmeasure.core.survey.clear_opening import survey
from oakmeasure.core.timber.choice import judge_chosen, timber
from oakmeasure.core.timber.movement import effects
from oakmeasure.core.timber.place import judge_place

BORES = (bore_lock, bore_latch, bore_bolts, bore_pull)  # what is cut for besides hinges


def solve(job: Job) -> Solution:
    """Return everything that follows from the job.

    Args:
        job: The job that is read; it is not changed.
    """
    return Solver().solve(job)


@dataclass(slots=True)
class Solver:
    """Solves jobs one after the other and keeps each leaf's result while nothing that it rests on changed."""

    _kept: dict[str, tuple[tuple[object, ...], LeafSolution]] = field(default_factory=dict)
    worked_out: int = 0
    """How many leaves were worked out anew."""

    def solve(self, job: Job) -> Solution:
        """Return the job, worked out.

        Args:
            job: The job that is read; it is not changed.
        """
        leaves = tuple(self._leaf(job, leaf) for leaf in job.leaves)
        self._kept = {leaf.id: self._kept[leaf.id] for leaf in job.leaves}
        return Solution(job, leaves, _shared_boards(job, leaves))

    def unfold(self, job: Job) -> LazySolution:
        """Return the same as `solve`, each leaf worked out when it is first asked for.

        Args:
            job: The job that is read; it is not changed.
        """
        ids = {leaf.id for leaf in job.leaves}
        self._kept = {leaf_id: kept for leaf_id, kept in self._kept.items() if leaf_id in ids}
        return LazySolution(job, self)

    def kept(self, job: Job, leaf: Leaf) -> LeafSolution | None:
        """Return a leaf's result if nothing that it rests on has changed since.

        Args:
            job: The job that is read; it is not changed.
            leaf: The leaf, as the document holds it.
        """
        kept = self._kept.get(leaf.id)
        return kept[1] if kept is not None and all(map(_same, kept[0], _rests_on(job, leaf))) else None

    def _leaf(self, job: Job, leaf: Leaf) -> LeafSolution:
        kept = self.kept(job, leaf)
        if kept is not None:
            return kept
        solution = solve_leaf(job, leaf)
        self.worked_out += 1
        self._kept[leaf.id] = (_rests_on(job, leaf), solution)
        return solution


def _rests_on(job: Job, leaf: Leaf) -> tuple[object, ...]:
    return (leaf, job.rules, job.boards, job.unit)


@dataclass(slots=True)
class LazySolution:
    """A solution whose leaves are worked out one by one, so that a window need not wait for two hundred of them."""

    job: Job
    """The job."""
    solver: Solver
    """What works out its leaves when they are asked for."""
    _checks: tuple[Check, ...] | None = None

    def leaf(self, leaf_id: str) -> LeafSolution:
        """Return what follows from one leaf.

        Args:
            leaf_id: Id of the leaf in the job.
        """
        return self.solver._leaf(self.job, self.job.leaf(leaf_id))

    @property
    def leaves(self) -> tuple[LeafSolution, ...]:
        """Return what follows from every leaf."""
        return tuple(self.solver._leaf(self.job, leaf) for leaf in self.job.leaves)

    def known(self, leaf_id: str) -> LeafSolution | None:
        """Return what follows from a leaf if it is worked out already.

        Args:
            leaf_id: Id of the leaf in the job.
        """
        return self.solver.kept(self.job, self.job.leaf(leaf_id))

    def next_missing(self) -> str:
        """Return the id of a leaf that is not worked out yet, "" when all are."""
        return next((leaf.id for leaf in self.job.leaves if self.solver.kept(self.job, leaf) is None), "")

    @property
    def checks(self) -> tuple[Check, ...]:
        """Return the checks of the job as a whole; none until every leaf is worked out."""
        if self._checks is None:
            if self.next_missing():
                return ()
            self._checks = _shared_boards(self.job, self.leaves)
        return self._checks

    def whole(self) -> Solution:
        """Return the finished solution."""
        return Solution(self.job, self.leaves, _shared_boards(self.job, self.leaves))


def _same(one: object, other: object) -> bool:
    return one is other or one == other


def solve_leaf(job: Job, leaf: Leaf) -> LeafSolution:
    """Return everything that follows from one leaf of the job, what was read while it was made with it.

    Args:
        job: Whose shop rules, stock and unit count.
        leaf: A leaf of it, as the document holds it.

    Returns:
        The leaf worked out as far as it can be.
    """
    try:
        ctx, design = _design(job, leaf)
    except Exception as fault:  # the program's own: the job's other leaves, lists and papers go on
        ctx, design = _stand_in(job, leaf, fault)
    making, hung = None, NOT_HUNG
    if design.fault is None:
        try:
            making, hung = make(design, job.rules, ctx.show), adjust_leaf(design, ctx.show)
            if making is not None and design.build is not None:
                judge_making(ctx.at(Stage.MAKE), design.build, making)
                judge_steps(ctx.at(Stage.MAKE), design, making)
                judge_cut_already(ctx.at(Stage.MAKE), design, making, lambda at: _made_until(job, leaf, at))
                judge_hanging(ctx.at(Stage.HANG), hung)
        except Exception as fault:
            making, hung, design = None, NOT_HUNG, design.left_undone(fault)
    if design.fault is not None:
        _say_fault(ctx.at(Stage.LEAF), leaf, design.fault)
    checks = tuple(_that_mend(leaf, each) for each in ctx.checks_so_far.sorted())
    return LeafSolution.of(design, checks=checks, making=making, hung=hung)


def _made_until(job: Job, leaf: Leaf, until: datetime) -> Making | None:
    """Return how a leaf is made by what was read up to a moment."""
    return make(design_leaf(job, log_until(leaf, until)), job.rules, Show(job.unit))


def _that_mend(leaf: Leaf, check: Check) -> Check:
    """Return a check without the remedies that the document refuses, or that are taken already."""
    kept = tuple(each for each in check.remedies if not each.path or would_change(leaf, each.path, each.value))
    return check if len(kept) == len(check.remedies) else replace(check, remedies=kept)


def _say_fault(ctx: Context, leaf: Leaf, fault: Exception) -> None:
    asked = f"{trade_name(leaf.build.kind)}, {leaf.hanging}"
    ctx.stop(
        "not-worked-out",
        "This leaf cannot be worked out",
        f"The program fails over it ({type(fault).__name__}): {asked}. The job's other leaves are right.",
        Remedy("Take the last change back, or choose something else for this leaf"),
    )


def _stand_in(job: Job, leaf: Leaf, fault: Exception) -> tuple[Context, LeafDesign]:
    """Return what can be said of a leaf that the program fails over: of its opening if that can be, of none if not."""
    plain = leaf.model_copy(update={"hanging": Hanging.OPEN})
    bare = Leaf(id=leaf.id, name=leaf.name, hand=leaf.hand, hanging=Hanging.OPEN, readings=leaf.readings)
    empty = new_job().leaves[0].model_copy(update={"id": leaf.id, "name": leaf.name, "hanging": Hanging.OPEN})
    for each in (plain, bare):
        try:
            ctx, design = _design(job, each)
            break
        except Exception:  # the same fault: the next one asks for less
            continue
    else:
        ctx, design = _design(job, empty)
    return replace(ctx, checks_so_far=Checks()), replace(design.left_undone(fault), leaf=leaf)


def design_leaf(job: Job, leaf: Leaf) -> LeafDesign:
    """Return one leaf of the job from its readings to its hardware.

    Args:
        job: Whose shop rules, stock and unit count.
        leaf: A leaf of it, as the document holds it.

    Returns:
        The design; without parts where the leaf cannot hang as it is chosen.
    """
    return _design(job, leaf)[1]


def _design(job: Job, said: Leaf) -> tuple[Context, LeafDesign]:
    """Return the leaf's context, which goes on collecting what is to be said, and its design."""
    leaf = read_back(said, lambda: _set_out(job, said))
    ctx = Context(leaf, job.rules, Show(job.unit))
    add_butt_figures(ctx.at(Stage.HARDWARE))
    add_edge_thickness(ctx.at(Stage.LEAF))
    add_cup_figures(ctx.at(Stage.HARDWARE))
    wood = timber(ctx.at(Stage.TIMBER))
    add_gaps(ctx.at(Stage.FIT))
    opening = survey(ctx.at(Stage.MEASURE))
    fitted = fit(ctx.at(Stage.FIT), opening)
    design = LeafDesign(
        said,
        ctx.figures,
        opening,
        fitted,
        wood,
        sigma_cut=job.rules.sigma_cut.value,
        sigma_hang=job.rules.sigma_hang.value,
    )
    if fitted.possible:
        try:
            design = _with_hardware(ctx, job, _set_out_and_planned(ctx, job, design), made=fitted)
        except Exception as fault:
            design = design.left_undone(fault)
    judge_assumed(ctx, opening.next_reading)
    return ctx, design


def _set_out_and_planned(ctx: Context, job: Job, design: LeafDesign) -> LeafDesign:
    """Return the design with its parts, their weights, how it swings or slides, and its wood."""
    leaf, opening, made, wood, turning = ctx.leaf, design.opening, design.fit, design.wood, None
    at_fit, at_leaf, at_timber, at_gear = map(ctx.at, (Stage.FIT, Stage.LEAF, Stage.TIMBER, Stage.HARDWARE))
    if leaf.hanging.is_cabinet and not leaf.hanging.has_butts:
        settle_cups(at_gear)
    if leaf.hanging.has_butts or leaf.hanging.is_cabinet:
        turning = swing(at_fit, opening, made)
    say_chance(at_fit, opening, made)
    buy_or_make(at_fit, made.width, made.height)
    build = as_made(at_leaf, still_made(build_leaf(at_leaf, made, wood), design.leaf))
    build = cut_guide(at_gear, build)
    # The leaf as made hangs where it hangs; what is trimmed later is off its edges.
    fitted, build, trims = trim_late(at_leaf, made, build)
    if fitted.outline:
        build = replace(build, outline=fitted.outline)
    body = body_of(build)
    if fitted.outline:
        body = listed(body)
        build = body.build
    weights = as_weighed(at_timber, weigh(at_timber, body, wood))
    judge_chosen(at_timber, build)
    judge_lift(at_timber, weights.mass)
    effects(at_timber, ctx.figures["thickness"], fitted.height)
    if turning is not None:
        swings_by_itself(at_fit, turning, weights.mass)
    place = place_of(at_fit, opening, made, weights.mass.value) if leaf.hanging.slides else None
    if place is not None:
        judge_set(at_fit, place)
    lining = opening.lining.parts if opening.lining else ()
    return replace(
        design,
        fit=fitted,
        build=build,
        body=body,
        weights=weights,
        swing=turning,
        leaf_choices=trims,
        fit_choices=side_by_side(at_fit, made, place),
        plan=plan_leaf(at_timber, pieces_sawn(build.parts * fitted.leaves + lining), job.boards),
    )


def _with_hardware(ctx: Context, job: Job, design: LeafDesign, *, made: Fit) -> LeafDesign:
    """Return the design with all that carries and closes it, proven to clash nowhere. made: before late trims."""
    leaf, fitted, wood, body, weights = ctx.leaf, design.fit, design.wood, design.body, design.weights
    assert body is not None
    assert weights is not None
    assert design.plan is not None
    at_gear = ctx.at(Stage.HARDWARE)
    butts = cups = gear = None
    frame = frame_of(design.opening, fitted)
    if leaf.hanging.has_butts:
        butts = hang_on_butts(at_gear, at_edge(ctx, fitted, "hinge"), frame, body, weights.mass)
    elif leaf.hanging.is_cabinet:
        cups = hang_on_cups(at_gear, at_edge(ctx, fitted, "hinge"), frame, body, weights.mass)
    if leaf.hanging.slides:
        gear = hang_on_hangers(at_gear, fitted, body, weights.mass)
    guided = bore_guide(at_gear, body)
    if gear is not None:
        gear = fix_track(at_gear, design.opening, made, gear)
        judge_motion(at_gear, gear)
    at_latch = at_edge(ctx, fitted, "latch")
    extra = tuple(cut for bores in BORES for cut in bores(at_gear, at_latch, frame, body))
    extra += guided + (gear.borings if gear is not None else ())
    judge_stack(at_gear)
    if butts is not None:
        judge_packet(at_gear)
        set_out_template(at_gear)
        judge_screws(at_gear, body, wood, weights.mass)

    def listed(borings: tuple[Boring, ...], body: Body = body) -> tuple[Boring, ...]:
        return from_edge_tops(in_wood(at_gear, body, borings), frame.tops)

    extra = listed(extra)
    butts = butts and replace(butts, borings=listed(butts.borings))
    hinged = butts.borings if butts is not None else ()
    cut_anew, patches = fit_old_frame(at_gear, frame, body, (*hinged, *extra))
    extra = cut_anew[len(hinged) :]
    cups = cups and replace(cups, borings=listed(cups.borings))
    cuts = (*(butts.borings if butts else ()), *(cups.borings if cups else ()), *extra)
    build, clashes = check_clashes(at_gear, body.build, cuts, butts, cups)
    in_leaf = [(each.solid, each.name) for each in cuts if each.solid is not None and not each.is_slow]
    body = replace(body, build=build).with_cuts(in_leaf)
    judge_place(ctx.at(Stage.TIMBER), build.parts)
    judge_shop(ctx.at(Stage.LEAF), build)
    cost_up(ctx, build, design.plan, job.boards, fitted.leaves)
    return replace(
        design,
        build=build,
        body=body,
        frame=frame,
        butts=butts,
        cups=cups,
        gear=gear,
        other_borings=extra,
        patches=patches,
        clashes=clashes,
        leaf_choices=(*leaf_ways(ctx.at(Stage.LEAF), fitted, build, wood), *design.leaf_choices),
    )


def _set_out(job: Job, leaf: Leaf) -> Build | None:
    """Return the leaf as it was set out, before anything of it was read: only where some of its boards were."""
    if not widths_read(leaf):
        return None
    plain = leaf.model_copy(update={"making": leaf.making.model_copy(update={"log": ()})})
    return design_leaf(job, plain).build


def _is_sold(job: Job, board: Board) -> bool:
    """Return whether the yard has more of about that thickness, in its species or in any."""
    alike = (each for each in job.boards if not each.is_owned and abs(each.thickness - board.thickness) <= SAWN_ALIKE)
    return any(each.species is None or each.species == board.species for each in alike)


def _shared_boards(job: Job, leaves: tuple[LeafSolution, ...]) -> tuple[Check, ...]:
    """Each leaf is planned by itself; say where they together take more boards than there are."""
    show, short = Show(job.unit), []
    for at, board in enumerate(job.boards):
        if _is_sold(job, board):  # the plan of the whole job shares them out
            continue
        taken = sum(each.plan.used.get(at, 0) for each in leaves if each.plan)
        if board.quantity is not None and taken > board.quantity:
            size = show.size(board.length, board.width, board.thickness)
            short.append(f"{taken} of {size} are planned, {board.quantity} on the rack")
    if not short:
        return ()
    remedy = Remedy("Get more, or make the leaves one after the other")
    title, sentence = "The leaves want the same boards", "; ".join(short) + "."
    return (Check("boards-shared", Level.WARNING, Stage.TIMBER, title, sentence, remedies=(remedy,)),)
