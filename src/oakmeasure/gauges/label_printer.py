"""A label printer that is not there: it takes labels over a socket and shows its tape.

The lines are in docs/labels.md.
"""

from __future__ import annotations

import contextlib
import socket
import threading
from collections.abc import Callable

from oakmeasure.gauges.talk import Talk

LONGEST_LINE = 120
MOST_LINES = 14
WAIT_S = 0.2
TALK_S = 2.0  # in which a line must have come
HOST = "127.0.0.1"


class SimulatedPrinter:
    """Listens on `port` of this machine (0: any free one).

    tape: the labels so far, each as its lines. paper: labels until it runs out; None: never.
    """

    def __init__(
        self, *, port: int = 0, paper: int | None = None, on_label: Callable[[tuple[str, ...]], None] | None = None
    ) -> None:
        self.tape: list[tuple[str, ...]] = []
        self.paper = paper
        self._on_label = on_label
        self._stop = threading.Event()
        self._socket = socket.create_server((HOST, port), reuse_port=False)
        self._socket.settimeout(WAIT_S)
        self.port = int(self._socket.getsockname()[1])
        self._thread = threading.Thread(target=self._run, name="label printer", daemon=True)
        self._thread.start()

    def close(self) -> None:
        """Switch it off."""
        self._stop.set()
        self._thread.join(timeout=3)
        self._socket.close()

    def _run(self) -> None:
        while not self._stop.is_set():
            with contextlib.suppress(TimeoutError):
                caller, _ = self._socket.accept()
                # Whatever a caller sends, the next one is served.
                with caller, contextlib.suppress(Exception):
                    self._serve(caller)

    def _serve(self, caller: socket.socket) -> None:
        talk = Talk(caller)
        while not self._stop.is_set():
            head = talk.read_line(most=LONGEST_LINE + 2, seconds=TALK_S)
            if not head:
                return
            answer = self._take(head, talk)
            caller.settimeout(TALK_S)
            caller.sendall(answer)

    def _take(self, head: bytes, talk: Talk) -> bytes:
        """Take one label: LABEL and its number of lines, then the lines. Returns the answer."""
        word, _, number = head.decode("utf-8", errors="replace").strip().partition(" ")
        if word != "LABEL" or number not in map(str, range(1, MOST_LINES + 1)):
            return b"ERR LABEL and the number of lines, 1 to %d\n" % MOST_LINES
        read = [talk.read_line(most=LONGEST_LINE * 4 + 2, seconds=TALK_S) for _ in range(int(number))]
        if not read[-1].endswith(b"\n"):
            return b"ERR cut off\n"
        if self.paper is not None and len(self.tape) >= self.paper:
            return b"ERR out of paper\n"
        label = tuple(each.decode("utf-8", errors="replace").rstrip("\r\n") for each in read)
        self.tape.append(label)
        if self._on_label is not None:
            self._on_label(label)
        return b"OK %d\n" % len(self.tape)


def tape_text(label: tuple[str, ...]) -> str:
    """Return a label as it comes out of the printer, in a frame of text.

    Args:
        label: The label's lines.
    """
    wide = max(map(len, label), default=1)
    rule = "+" + "-" * (wide + 2) + "+"
    return "\n".join([rule, *(f"| {line.ljust(wide)} |" for line in label), rule])
