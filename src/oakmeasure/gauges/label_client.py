"""Sends labels to a printer over a socket, one after the other, each answered before the next."""

from __future__ import annotations

import socket
from collections.abc import Callable, Sequence

from oakmeasure.gauges.talk import Talk

WAIT_S = 3.0  # for the connection, and for each label with its answer


class PrinterError(Exception):
    """The printer does not take it. printed: labels that came out before."""

    def __init__(self, reason: str, printed: int) -> None:
        self.reason, self.printed = reason, printed
        left = f"; {printed} came out before" if printed else ""
        super().__init__(f"{reason}{left}")


def message(lines: Sequence[str]) -> bytes:
    """Return the bytes of one label.

    Args:
        lines: Lines of the label.
    """
    clean = [" ".join(each.split()) for each in lines]
    return f"LABEL {len(clean)}\n".encode() + "".join(f"{each}\n" for each in clean).encode("utf-8")


def send_labels(
    labels: Sequence[Sequence[str]], *, host: str, port: int, on_printed: Callable[[int], None] | None = None
) -> int:
    """Print labels, each as its lines; returns how many came out.

    Args:
        labels: Lines of each label.
        host: Name or address of the printer.
        port: Its port.
        on_printed: Called with how many are printed.

    Raises:
        PrinterError: Which says how many did.
    """
    printed = 0
    if not 0 < port < 65536:
        raise PrinterError(f"{port} is no port: 1 to 65535", 0)
    try:
        with socket.create_connection((host, port), timeout=WAIT_S) as line:
            talk = Talk(line)
            for label in labels:
                line.settimeout(WAIT_S)
                line.sendall(message(label))
                answer = talk.read_line(most=200, seconds=WAIT_S).decode("utf-8", errors="replace").strip()
                if not answer:
                    raise PrinterError("the printer hung up", printed)
                if not answer.startswith("OK"):
                    raise PrinterError(answer.removeprefix("ERR ") or "it did not answer as a printer does", printed)
                printed += 1
                if on_printed is not None:
                    on_printed(printed)
    except (OSError, UnicodeError) as error:  # a name of two dots in a row is no name
        raise PrinterError(_in_words(error, host, port), printed) from None
    return printed


def _in_words(error: Exception, host: str, port: int) -> str:
    if isinstance(error, ConnectionRefusedError):
        return f"nobody listens on {host}, port {port}: is the printer on?"
    if isinstance(error, TimeoutError):
        return f"no answer from {host}, port {port}"
    if isinstance(error, socket.gaierror | UnicodeError):
        return f"no machine is called {host}"
    return str(getattr(error, "strerror", "") or error).lower()
