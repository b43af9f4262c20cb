"""The command `oak-measure`: the window, and the same answers without a screen."""

from __future__ import annotations

import sys

COMMANDS = (
    "shot",
    "figures",
    "sheet",
    "cut-list",
    "boring-list",
    "demo-picture",
    "schema",
    "to-measure",
    "gauge-sim",
    "keep-outs",
    "cut",
    "settings",
    "operations",
    "labels",
    "printer-sim",
    "sum",
    "rod",
    "templates",
    "customer",
    "dxf",
    "svg",
    "schedule",
    "read-schedule",
    "hardware",
    "folder",
    "install-desktop",
)


def main() -> None:
    """Open the window on `[JOB]`, or run one of the commands.

    The window does not wait for the command line's library: it starts at once.
    """
    words = sys.argv[1:]
    if words[:1] == ["--demo"] or not words or (not words[0].startswith("-") and words[0] not in COMMANDS):
        from oakmeasure.app.shell.splash import run

        demo = words[:1] == ["--demo"]
        if len(words) > 1:
            print("oak-measure: one job at a time", file=sys.stderr)
            raise SystemExit(2)
        raise SystemExit(run(None if demo or not words else words[0], demo=demo))
    try:
        if words[0] == "sum":  # answers at once: no command line's library, no models
            from oakmeasure.cli.quick_sum import run as run_sum

            raise SystemExit(run_sum(words[1:]))
        from oakmeasure.cli.inspect import app

        app()
    except Exception as error:
        from oakmeasure.files.crash_log import log_trouble

        print(f"oak-measure: {log_trouble(error)}", file=sys.stderr)
        raise SystemExit(1) from None
