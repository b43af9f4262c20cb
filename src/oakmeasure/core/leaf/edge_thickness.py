"""How thick a leaf is at its long edges, where hinges and locks sit: what a size may rest on before it has a body.

The body of the finished leaf is as thick there; a law of the tests holds the two together.
"""

from __future__ import annotations

from oakmeasure.core.figures.figure import fixed, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context


def add_edge_thickness(ctx: Context) -> None:
    """Add the leaf's thickness at its edges, the sum of the layers there, and over its ledges or battens.

    Args:
        ctx: The leaf's context: its choices are read, its figures added to.
    """
    build, source, f = ctx.leaf.build, "set by hand for this leaf", ctx.figures
    layers, over_all = build.edge_layers, build.over_all
    edge = sum(each.thickness * each.times for each in layers)
    is_thicker = over_all > edge + 0.01
    label = "leaf thickness, at its edges" if is_thicker else "leaf thickness"
    if len(layers) == 1 and layers[0].times == 1:
        f.given("thickness", label, edge, fixed(layers[0].edit, source=source))
    else:
        figures = [
            f.given(figure_name(each.name), each.label, each.thickness, fixed(each.edit, source=source))
            for each in layers
        ]
        f.total("thickness", label, *(plus(one, each.times) for one, each in zip(figures, layers, strict=True)))
    if is_thicker:
        f.given("thickness_over", "leaf thickness, over all", over_all, fixed(source="with its ledges or battens"))
