"""Reading a measuring instrument over a serial line, and a simulated one. The line protocol is in docs/gauges.md."""
