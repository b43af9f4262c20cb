"""What is drawn on a page of a PDF, read back by an independent library."""

from __future__ import annotations

from pypdf.generic import ContentStream

POINT = 72 / 25.4


def lines_of(page):
    """Straight lines of a page, (x0, y0, x1, y1) in mm, by its content stream."""
    found, matrix, stack, at = [], (1, 0, 0, 1, 0, 0), [], (0.0, 0.0)
    for operands, operator in ContentStream(page.get_contents(), page.pdf).operations:
        numbers = [float(each) for each in operands if not isinstance(each, str | bytes | list | dict)]
        if operator == b"q":
            stack.append(matrix)
        elif operator == b"Q":
            matrix = stack.pop()
        elif operator == b"cm":
            a, b, c, d, e, f = numbers
            p, q, r, s, t, u = matrix
            matrix = (a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s, e * p + f * r + t, e * q + f * s + u)
        elif operator in (b"m", b"l"):
            x, y = numbers
            a, b, c, d, e, f = matrix
            place = ((a * x + c * y + e) / POINT, (b * x + d * y + f) / POINT)
            if operator == b"l":
                found.append((*at, *place))
            at = place
    return found
