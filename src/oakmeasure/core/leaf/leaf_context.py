"""What one leaf's way down the chain carries along: choices, rules, figures so far, checks so far."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.job import Leaf, Reading
from oakmeasure.core.document.rules import Rule, ShopRules
from oakmeasure.core.figures.check import GROUNDLESS, Check, Checks, Grounds, Level, Remedy, Stage
from oakmeasure.core.figures.figure import Figure, Figures, Origin, fixed
from oakmeasure.core.figures.names import FigureName, figure_name


@dataclass(slots=True)
class Context:
    """Handed from stage to stage; each adds its figures and its checks."""

    leaf: Leaf
    """The leaf, as the document holds it."""
    rules: ShopRules
    """The shop rules."""
    show: Show
    """How lengths are written."""
    stage: Stage = Stage.MEASURE
    """The stage that what is said belongs to."""
    figures: Figures = field(default_factory=Figures)
    """The leaf's figures so far."""
    checks_so_far: Checks = field(default_factory=Checks)
    """What has been said so far."""
    next_reading: str = ""
    """In words: what would make the clear width surest, and how sure; while the opening is surveyed."""

    def at(self, stage: Stage) -> Context:
        """Return the same context for a room of another stage: its figures and what was said are shared.

        Args:
            stage: The stage that what the room says belongs to.
        """
        return replace(self, stage=stage)

    def rule(self, name: str, label: str, unit: Unit = Unit.MM) -> Figure:
        """Return the shop rule `name` as a figure with its reason.

        Args:
            name: Its name.
            label: What it is called, for the working and the drawing.
            unit: Its unit.
        """
        known = figure_name(f"rule_{name}")
        if known in self.figures:
            return self.figures[known]
        rule: Rule = getattr(self.rules, name)
        return self.figures.given(known, label, rule.value, fixed(source=self._why(rule)), unit=unit)

    def chosen(
        self, name: FigureName, label: str, value: float | None, edit: str, unit: Unit = Unit.MM, rule: str = ""
    ) -> Figure:
        """Return the choice as a figure; where it is None, the shop rule `rule` (or `name`) decides.

        Args:
            name: The figure's name.
            label: What it is called, for the working and the drawing.
            value: The value, in its unit; None where nothing is chosen.
            edit: Path of the field that sets it; "" for none.
            unit: Its unit.
            rule: The limit and whose it is; for a choice, the shop rule that decides where nothing is chosen.
        """
        source = "set by hand for this leaf"
        if value is None:
            shop: Rule = getattr(self.rules, rule or name)
            value, source = shop.value, self._why(shop)
        return self.figures.given(name, label, value, fixed(edit, source=source), unit=unit)

    def reading(
        self, name: FigureName, label: str, reading: Reading, edit: str, source: str = "", unit: Unit = Unit.MM
    ) -> Figure:
        """Return a reading or a hardware figure, with its state.

        Args:
            name: The figure's name.
            label: What it is called, for the working and the drawing.
            reading: The reading, as the document holds it.
            edit: Path of the field that sets it; "" for none.
            source: Whose value or formula it is.
            unit: Its unit.
        """
        return self.figures.given(
            name, label, reading.value, Origin(edit=edit, source=source, state=reading.state), unit=unit
        )

    def _why(self, rule: Rule) -> str:
        return f"shop rules “{self.rules.name}”: {rule.reason or 'common practice'}"

    def thickness_remedy(self, words: str, thickness: float) -> Remedy:
        """Return the remedy of another thickness.

        It is the first layer at the edges that is made thicker or thinner; of a leaf that is made and measured none.

        Args:
            words: The words.
            thickness: Thickness of the leaf at its edges, mm.
        """
        if "thickness_set_out" in self.figures:
            return Remedy(words)
        layers = self.leaf.build.edge_layers
        first, more = layers[0], thickness - sum(each.thickness * each.times for each in layers)
        value = first.thickness + more / first.times
        return Remedy(words, first.edit, round(value, 3)) if first.edit and value > 0 else Remedy(words)

    def fmt(self, figure: Figure | float) -> str:
        """Return a length (or a figure in its unit) as short text for a sentence.

        Args:
            figure: The figure.
        """
        if isinstance(figure, Figure):
            return self.show.value(figure.value, figure.unit, with_unit=figure.unit is not Unit.MM)
        return self.show.length(figure)

    def stop(self, code: str, title: str, sentence: str, *remedies: Remedy, grounds: Grounds = GROUNDLESS) -> None:
        """Add a check that says not to cut.

        Args:
            code: The check's code, which stays the same for ever.
            title: A few words.
            sentence: The numbers in one plain sentence.
            remedies: What would mend it, the best first.
            grounds: What it rests on, and where that is seen.
        """
        self.report(code, Level.STOP, title, sentence, *remedies, grounds=grounds)

    def warn(self, code: str, title: str, sentence: str, *remedies: Remedy, grounds: Grounds = GROUNDLESS) -> None:
        """Add a check that is to be looked at.

        Args:
            code: The check's code, which stays the same for ever.
            title: A few words.
            sentence: The numbers in one plain sentence.
            remedies: What would mend it, the best first.
            grounds: What it rests on, and where that is seen.
        """
        self.report(code, Level.WARNING, title, sentence, *remedies, grounds=grounds)

    def fine(self, code: str, title: str, sentence: str, *remedies: Remedy, grounds: Grounds = GROUNDLESS) -> None:
        """Add a check that all is well.

        Args:
            code: The check's code, which stays the same for ever.
            title: A few words.
            sentence: The numbers in one plain sentence.
            remedies: What else is to be thought of.
            grounds: What it rests on, and where that is seen.
        """
        self.report(code, Level.OK, title, sentence, *remedies, grounds=grounds)

    def report(
        self, code: str, level: Level, title: str, sentence: str, *remedies: Remedy, grounds: Grounds = GROUNDLESS
    ) -> None:
        """Add a check whose level depends on its numbers.

        Args:
            code: The check's code, which stays the same for ever.
            level: How bad it is.
            title: A few words.
            sentence: The numbers in one plain sentence.
            remedies: What would mend it, the best first.
            grounds: What it rests on, and where that is seen.
        """
        rests = grounds
        check = Check(code, level, self.stage, title, sentence, rests.rule, remedies, rests.where, rests.figure)
        self.checks_so_far.add(check)
