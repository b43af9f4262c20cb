"""Boxes of their own: quick sums, schedule, glossary, shop rules, questions."""
