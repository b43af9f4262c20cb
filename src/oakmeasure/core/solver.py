"""The chain: readings → survey → fit → build → timber → hardware → verdicts. One way, nothing worked out twice.

`solve(job)` is pure. `Solver` keeps the result of each leaf as long as the leaf and what it shares with the job
(rules, boards, unit) stay the same, so that an edit works out only what it touches.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.construction.alternatives import leaf_ways
from oakmeasure.core.construction.clip_to_outline import hinge_edge
from oakmeasure.core.construction.late_trim import trim_late
from oakmeasure.core.construction.registry import build_leaf
from oakmeasure.core.construction.registry import inputs as build_inputs
from oakmeasure.core.construction.shop_capacity import judge_shop
from oakmeasure.core.costing.cost import cost_up
from oakmeasure.core.cutting.leaf_plan import SAWN_ALIKE, LeafPlan, plan_leaf
from oakmeasure.core.document.job import Hanging, Job, Leaf
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.document.stock import Board
from oakmeasure.core.figures.check import Level, Remedy, Stage, Verdict
from oakmeasure.core.figures.figure import Figure, Figures, State
from oakmeasure.core.figures.leaf_context import Context
from oakmeasure.core.fit.alternatives import Comparison, side_by_side
from oakmeasure.core.fit.bought_leaf import buy_or_make
from oakmeasure.core.fit.fit_probability import say_chance
from oakmeasure.core.fit.fit_result import Fit, gaps
from oakmeasure.core.fit.gear import judge_set, place_of
from oakmeasure.core.fit.registry import fit
from oakmeasure.core.fit.swing.obstacles import Swing, swing, swings_by_itself
from oakmeasure.core.hanging.adjust import NOT_HUNG, Hung, hang
from oakmeasure.core.hanging.checks import judge_hanging
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.hardware.clash.check_clashes import prove
from oakmeasure.core.hardware.clash.search import ClashMap
from oakmeasure.core.hardware.fixing_stack import judge_stack
from oakmeasure.core.hardware.hinges.butts import Butts, hang_on_butts
from oakmeasure.core.hardware.hinges.butts import inputs as butt_inputs
from oakmeasure.core.hardware.hinges.cups import Cups, hang_on_cups
from oakmeasure.core.hardware.hinges.cups import inputs as cup_inputs
from oakmeasure.core.hardware.hinges.cups import settle as settle_cups
from oakmeasure.core.hardware.hinges.hinge_set import judge_packet, set_out_template
from oakmeasure.core.hardware.hinges.screws import judge_screws
from oakmeasure.core.hardware.locks.latches import bore_bolts, bore_latch
from oakmeasure.core.hardware.locks.mortise_locks import bore_lock, bore_pull
from oakmeasure.core.hardware.sliding.guides import bore_guide, cut_guide
from oakmeasure.core.hardware.sliding.hangers import Gear, hang_on_hangers
from oakmeasure.core.hardware.sliding.motion import judge_motion
from oakmeasure.core.hardware.sliding.tracks import fix_track
from oakmeasure.core.leaf.part import Build, Part, Role
from oakmeasure.core.making.as_made import as_made, as_weighed, read_back, still_made, widths_read
from oakmeasure.core.making.checks import judge_making
from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.making.sequence import Making, make
from oakmeasure.core.survey.clear_opening import Opening, survey
from oakmeasure.core.timber.choice import Timber, timber
from oakmeasure.core.timber.movement import effects
from oakmeasure.core.timber.place import judge_place
from oakmeasure.core.timber.weight import Weights, weigh

NO_CLASHES = ClashMap()
BORES = (bore_lock, bore_latch, bore_bolts, bore_pull)  # what is cut for besides hinges


@dataclass(frozen=True, slots=True)
class LeafSolution:
    """Everything that follows from one leaf. What lies beyond a leaf that cannot be is None."""

    leaf: Leaf
    figures: Figures
    verdicts: tuple[Verdict, ...]
    opening: Opening
    fit: Fit
    wood: Timber
    build: Build | None
    weights: Weights | None
    plan: LeafPlan | None
    butts: Butts | None
    swing: Swing | None = None
    choices: tuple[Comparison, ...] = ()
    sigma_cut: float = 0.0
    sigma_hang: float = 0.0
    leaf_choices: tuple[Comparison, ...] = ()
    cups: Cups | None = None
    extra: tuple[Boring, ...] = ()
    clashes: ClashMap = NO_CLASHES
    gear: Gear | None = None
    making: Making | None = None
    hung: Hung = NOT_HUNG

    @property
    def borings(self) -> tuple[Boring, ...]:
        """Return everything that is cut and bored for hardware, on leaf and on what carries it."""
        return (self.butts.borings if self.butts else ()) + (self.cups.borings if self.cups else ()) + self.extra

    @property
    def cut_parts(self) -> tuple[Part, ...]:
        """Return everything on the cut list: the leaf's parts, then those of a lining to be made and its packing."""
        lining = self.opening.lining
        return (self.build.parts if self.build else ()) + (lining.parts if lining else ())

    @property
    def sawn(self) -> tuple[Part, ...]:
        """Return every piece that is cut out of boards, sections or sheets, each as often as it is made."""
        lining = self.opening.lining.parts if self.opening.lining else ()
        return _sawn((self.build.parts * self.fit.leaves if self.build else ()) + lining)

    def pieces_of(self, part: Part) -> int:
        """Return how many of a part are made: of a pair or a run, one for each leaf."""
        return 1 if part.role in (Role.LINING, Role.PACKING) else self.fit.leaves

    def mass_of(self, part: Part) -> Figure | None:
        """Return the weight of one of a part of the leaf; None for one of its lining."""
        return self.weights.parts.get(part.name) if self.weights else None

    @property
    def woods(self) -> list[str]:
        """Return what the leaf is made of, by its keys, what weighs most first; less than 2 % of it is not told."""
        masses: dict[str, float] = {}
        for part in self.build.parts if self.build else ():
            mass = self.mass_of(part)
            masses[part.species] = masses.get(part.species, 0.0) + (mass.value if mass is not None else 0.0)
        least = 0.02 * sum(masses.values())
        return sorted((each for each, mass in masses.items() if mass >= least), key=lambda each: -masses[each])

    def open_stops(self) -> list[Verdict]:
        """Return the stops that nobody has answered for; with any left, no bench sheet is printed."""
        answered = {each.code for each in self.leaf.acknowledged}
        return [each for each in self.verdicts if each.level is Level.STOP and each.code not in answered]

    def key_figure(self, stage: Stage, show: Show) -> str:
        """Return the figure that stands under the stage's name on the rod."""
        f = self.figures
        if stage is Stage.MEASURE:
            return show.size(f["clear_width"].value, f["clear_height"].value)
        if self.leaf.hanging is Hanging.OPEN:
            return "not decided"
        if stage is Stage.FIT:
            return show.size(f["leaf_width"].value, f["leaf_height"].value)
        if self.build is None or self.plan is None:
            return "no leaf"
        if stage is Stage.LEAF:
            return self.build.summary
        if stage is Stage.TIMBER:
            return self.plan.in_words()
        if stage is Stage.MAKE:
            return self._made_so_far()
        if stage is Stage.HANG:
            return self._how_it_hangs(show)
        if self.cups is not None:
            return f"{int(f['cup_count'].value)} cups · {show.value(f['mass'].value, Unit.KG)}"
        if self.gear is not None:
            word = "wheels" if self.gear.kind is HangerKind.FLOOR else "hangers"
            return f"2 {word} · {show.value(f['mass'].value, Unit.KG)}"
        if self.butts is None:
            return f"no gear yet · {show.value(f['mass'].value, Unit.KG)}"
        return f"{int(f['butt_count'].value)} butts · {show.value(f['mass'].value, Unit.KG)}"

    def _how_it_hangs(self, show: Show) -> str:
        """Return when it was signed off, or how far its worst gap is off once it is put right."""
        signed = self.leaf.hung.signed
        if signed is not None:
            return f"hung {signed.on.day} {signed.on:%b %Y}"
        if "hung_worst" in self.figures:
            return f"within {show.length(self.figures['hung_worst'].value)}"
        return "to be adjusted" if self.hung.is_read else "not hung yet"

    def _made_so_far(self) -> str:
        """Return how many of its operations are done, or how many there are and their hours."""
        if self.making is None:
            return ""
        states = progress(self.making.operations, self.leaf.making.log)
        done = sum(each is Progress.DONE for each in states.values())
        if done:
            return f"{done} of {len(states)} done"
        return f"{len(states)} steps, {self.making.hours:.0f} h"


@dataclass(frozen=True, slots=True)
class Solution:
    """The whole job, worked out. `verdicts` are those of the job as a whole."""

    job: Job
    leaves: tuple[LeafSolution, ...]
    verdicts: tuple[Verdict, ...]

    def leaf(self, leaf_id: str) -> LeafSolution:
        for each in self.leaves:
            if each.leaf.id == leaf_id:
                return each
        raise KeyError(leaf_id)


def solve(job: Job) -> Solution:
    """Return everything that follows from the job."""
    return Solver().solve(job)


@dataclass(slots=True)
class Solver:
    """Solves jobs one after the other and keeps each leaf's result while nothing that it rests on changed."""

    _kept: dict[str, tuple[tuple[object, ...], LeafSolution]] = field(default_factory=dict)
    worked_out: int = 0

    def solve(self, job: Job) -> Solution:
        leaves = tuple(self._leaf(job, leaf) for leaf in job.leaves)
        self._kept = {leaf.id: self._kept[leaf.id] for leaf in job.leaves}
        return Solution(job, leaves, _shared_boards(job, leaves))

    def unfold(self, job: Job) -> Unfolding:
        """Return the same as `solve`, each leaf worked out when it is first asked for."""
        ids = {leaf.id for leaf in job.leaves}
        self._kept = {leaf_id: kept for leaf_id, kept in self._kept.items() if leaf_id in ids}
        return Unfolding(job, self)

    def kept(self, job: Job, leaf: Leaf) -> LeafSolution | None:
        """Return a leaf's result if nothing that it rests on has changed since."""
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
class Unfolding:
    """A solution whose leaves are worked out one by one, so that a window need not wait for two hundred of them."""

    job: Job
    solver: Solver
    _verdicts: tuple[Verdict, ...] | None = None

    def leaf(self, leaf_id: str) -> LeafSolution:
        """Return what follows from one leaf."""
        return self.solver._leaf(self.job, self.job.leaf(leaf_id))

    @property
    def leaves(self) -> tuple[LeafSolution, ...]:
        """Return what follows from every leaf."""
        return tuple(self.solver._leaf(self.job, leaf) for leaf in self.job.leaves)

    def known(self, leaf_id: str) -> LeafSolution | None:
        """Return what follows from a leaf if it is worked out already."""
        return self.solver.kept(self.job, self.job.leaf(leaf_id))

    def next_missing(self) -> str:
        """Return the id of a leaf that is not worked out yet, "" when all are."""
        return next((leaf.id for leaf in self.job.leaves if self.solver.kept(self.job, leaf) is None), "")

    @property
    def verdicts(self) -> tuple[Verdict, ...]:
        """Return the verdicts of the job as a whole; none until every leaf is worked out."""
        if self._verdicts is None:
            if self.next_missing():
                return ()
            self._verdicts = _shared_boards(self.job, self.leaves)
        return self._verdicts

    def whole(self) -> Solution:
        """Return the finished solution."""
        return Solution(self.job, self.leaves, _shared_boards(self.job, self.leaves))


def _same(one: object, other: object) -> bool:
    return one is other or one == other


def solve_leaf(job: Job, leaf: Leaf) -> LeafSolution:
    """Return everything that follows from one leaf of the job, what was read while it was made with it."""
    said = leaf  # as the document holds it
    leaf = read_back(leaf, lambda: _set_out(job, leaf))
    ctx = Context(leaf, job.rules, Show(job.unit))
    butt_inputs(ctx)
    build_inputs(ctx)
    cup_inputs(ctx)
    wood = timber(ctx)
    gaps(ctx)
    opening = survey(ctx)
    fitted = fit(ctx, opening)
    build = weights = plan = butts = cups = gear = None
    extra: tuple[Boring, ...] = ()
    lining = opening.lining.parts if opening.lining else ()
    turning, clashes = None, NO_CLASHES
    choices: tuple[Comparison, ...] = ()
    leaf_choices: tuple[Comparison, ...] = ()
    if fitted.possible:
        if leaf.hanging.is_cabinet and not leaf.hanging.has_butts:
            settle_cups(ctx)
        if leaf.hanging.has_butts or leaf.hanging.is_cabinet:
            turning = swing(ctx, opening, fitted)
        say_chance(ctx, opening, fitted)
        buy_or_make(ctx, fitted.width, fitted.height)
        build = as_made(ctx, still_made(build_leaf(ctx, fitted, wood), said))
        made = fitted  # the leaf as made hangs where it hangs; what is trimmed later is off its edges
        build = cut_guide(ctx, build)
        fitted, build, trims = trim_late(ctx, made, build)
        weights = as_weighed(ctx, weigh(ctx, build, wood))
        effects(ctx, ctx.figures["thickness"], fitted.height)
        if turning is not None:
            swings_by_itself(ctx, turning, weights.mass)
        place = place_of(ctx, opening, made, weights.mass.value) if leaf.hanging.slides else None
        if place is not None:
            judge_set(ctx, place)
        choices = side_by_side(ctx, made, place)
        plan = plan_leaf(ctx, _sawn(build.parts * fitted.leaves + lining), job.boards)
        if leaf.hanging.has_butts:
            butts = hang_on_butts(ctx, hinge_edge(ctx, fitted), build, weights.mass)
        elif leaf.hanging.is_cabinet:
            cups = hang_on_cups(ctx, fitted, build, weights.mass)
        if leaf.hanging.slides:
            gear = hang_on_hangers(ctx, fitted, build, weights.mass)
        guided = bore_guide(ctx, build)
        if gear is not None:
            gear = fix_track(ctx, opening, made, gear)
            judge_motion(ctx, gear)
        extra = tuple(cut for bores in BORES for cut in bores(ctx, fitted, build))
        extra += guided + (gear.borings if gear is not None else ())
        judge_stack(ctx)
        if butts is not None:
            judge_packet(ctx)
            set_out_template(ctx)
            judge_screws(ctx, build, wood, weights.mass)
        cuts = (*(butts.borings if butts else ()), *(cups.borings if cups else ()), *extra)
        build, clashes = prove(ctx, build, cuts, butts, cups)
        judge_place(ctx, build.parts)
        judge_shop(ctx, build)
        cost_up(ctx, build, plan, job.boards, fitted.leaves)
        leaf_choices = (*leaf_ways(ctx, fitted, build, wood), *trims)
    _judge_states(ctx)
    sure = (job.rules.sigma_cut.value, job.rules.sigma_hang.value)
    solved = LeafSolution(
        said,
        ctx.figures,
        (),
        opening,
        fitted,
        wood,
        build,
        weights,
        plan,
        butts,
        turning,
        choices,
        *sure,
        leaf_choices,
        cups,
        extra,
        clashes,
        gear,
    )
    making = make(solved, job.rules, ctx.show)
    hung = hang(solved, ctx.show)
    if making is not None and build is not None:
        judge_making(ctx, build, making)
        judge_hanging(ctx, hung)
    return replace(solved, verdicts=ctx.findings.sorted(), making=making, hung=hung)


def _set_out(job: Job, leaf: Leaf) -> Build | None:
    """Return the leaf as it was set out, before anything of it was read: only where some of its boards were."""
    if not widths_read(leaf):
        return None
    plain = leaf.model_copy(update={"making": leaf.making.model_copy(update={"log": ()})})
    return solve_leaf(job, plain).build


def _sawn(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """Return the parts that come out of boards or sheets: no packing, which off-cuts give, nothing that is there."""
    return tuple(each for each in parts if each.role is not Role.PACKING and not each.at_hand)


# What a joiner cuts to; named when something that they hang on is only assumed.
KEY_FIGURES = ("leaf_width", "leaf_height", "rail_length", "panel_width", "butt_depth", "butt_across", "least_bevel")


def _judge_states(ctx: Context) -> None:
    """Say, for the opening and for the hardware, what is only assumed and what hangs on it."""
    for stage in (Stage.MEASURE, Stage.HARDWARE):
        assumed = [
            each for each in still_to_measure(ctx.figures) if each.name.startswith("butt_") is (stage is Stage.HARDWARE)
        ]
        if not assumed:
            continue
        labels = {each.label for each in assumed}
        hanging = {each.label: each for each in ctx.figures if each.rests_on & labels and each.label not in labels}
        named = [
            ctx.figures[name].label
            for name in KEY_FIGURES
            if name in ctx.figures and ctx.figures[name].label in hanging
        ]
        more = len(hanging) - len(named)
        listed = ", ".join(named) + (f" and {more} more" if more > 0 else "") if named else f"{more} figures"
        first = assumed[0]
        remedy = Remedy("Measure it")
        if stage is Stage.MEASURE and ctx.next_reading:
            remedy = Remedy(f"Most would help: {ctx.next_reading}")
        where = f"reading:{first.edit.rpartition('.')[2]}" if first.edit else ""
        ctx.say(
            f"assumed-{stage.lower()}",
            Level.LOOK,
            stage,
            "Assumed, not measured",
            f"{'; '.join(each.label for each in assumed)}. On it hang: {listed}.",
            remedy,
            rule="nothing is cut to an assumed figure",
            where=where,
            figure=first.name,
        )


def still_to_measure(figures: Figures) -> list[Figure]:
    """Return the inputs that are only assumed."""
    return [
        each
        for each in figures
        if each.state is State.ASSUMED and each.rests_on == {each.label} and len(each.rows) == 1
    ]


def _is_sold(job: Job, board: Board) -> bool:
    """Return whether the yard has more of about that thickness, in its species or in any."""
    alike = (each for each in job.boards if not each.is_owned and abs(each.thickness - board.thickness) <= SAWN_ALIKE)
    return any(each.species is None or each.species == board.species for each in alike)


def _shared_boards(job: Job, leaves: tuple[LeafSolution, ...]) -> tuple[Verdict, ...]:
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
    return (Verdict("boards-shared", Level.LOOK, Stage.TIMBER, title, sentence, remedies=(remedy,)),)
