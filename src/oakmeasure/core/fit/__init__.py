"""From opening to leaf: each way of hanging turns an opening into a `Fit`."""
