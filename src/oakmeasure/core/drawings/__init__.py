"""What the board shows at each stage. Each view is a function from a solved leaf to a drawing.

To add a view: write a function `(LeafSolution, Show, **options) -> Drawing` and put it into `VIEWS` of
`drawings/views.py`.
"""
