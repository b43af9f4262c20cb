"""The simulated label printer: its lines, a socket that nobody listens on, a caller that hangs up, paper that runs
out.
"""

from __future__ import annotations

import contextlib
import socket
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.making.labels import labels_of
from oakmeasure.gauges.label_client import PrinterError, message, send_labels
from oakmeasure.gauges.label_printer import HOST, MOST_LINES, SimulatedPrinter, tape_text
from samples import solved


@pytest.fixture
def printer():
    made = SimulatedPrinter()
    yield made
    made.close()


def raw(port: int, sent: bytes) -> bytes:
    with socket.create_connection((HOST, port), timeout=3) as line:
        line.sendall(sent)
        line.shutdown(socket.SHUT_WR)
        return line.makefile("rb").read()


def test_every_label_of_a_leaf_comes_out_line_by_line_in_order(printer):
    labels = [each.lines() for each in labels_of(solved(), Show(), job="Sample")]
    seen: list[int] = []
    assert send_labels(labels, host=HOST, port=printer.port, on_printed=seen.append) == len(labels)
    assert printer.tape == labels
    assert seen == list(range(1, len(labels) + 1))
    assert "hinge stile" in tape_text(printer.tape[0])
    assert "joints A" in tape_text(printer.tape[0])


def test_what_is_no_label_is_refused_and_the_next_one_is_printed(printer):
    good = message(["4 top rail", "a  b"])
    answers = raw(printer.port, b"HELLO\n" + b"LABEL 99\n" + good).splitlines()
    assert [each.split()[0] for each in answers] == [b"ERR", b"ERR", b"OK"]
    assert printer.tape == [("4 top rail", "a b")]
    assert b"ERR cut off" in raw(printer.port, b"LABEL 3\nonly one line\n")
    assert len(printer.tape) == 1
    assert raw(printer.port, b"LABEL 1\n\xff\xfe\n").startswith(b"OK")
    assert MOST_LINES > 10


def test_paper_that_runs_out_says_how_many_came_out_before():
    printer = SimulatedPrinter(paper=2)
    with pytest.raises(PrinterError, match="out of paper; 2 came out before") as refused:
        send_labels([["a"], ["b"], ["c"]], host=HOST, port=printer.port)
    assert refused.value.printed == 2
    assert len(printer.tape) == 2
    printer.close()


def test_nobody_listening_a_wrong_name_and_a_port_that_is_none_are_told_plainly():
    quiet = SimulatedPrinter()
    quiet.close()
    for host, port, words in (
        (HOST, quiet.port, "nobody listens"),
        (HOST, 70_000, "no port"),
        ("no.such.machine.invalid", 9, "machine|name"),
    ):
        with pytest.raises(PrinterError, match=words):
            send_labels([["a"]], host=host, port=port)


def test_a_printer_that_hangs_up_or_answers_nonsense_is_told():
    for answer, words in ((b"", "hung up"), (b"COFFEE\n", "COFFEE")):
        with socket.create_server((HOST, 0)) as server:
            port = server.getsockname()[1]

            import threading

            def serve(server=server, answer=answer):
                caller, _ = server.accept()
                caller.recv(100)
                caller.sendall(answer)
                caller.close()

            thread = threading.Thread(target=serve)
            thread.start()
            with pytest.raises(PrinterError, match=words):
                send_labels([["a"]], host=HOST, port=port)
            thread.join()


def test_the_printer_runs_as_a_command_of_its_own():
    command = str(Path(sys.executable).parent / "oak-measure")
    with subprocess.Popen(
        [command, "printer-sim", "--port", "0", "--count", "1"], stdout=subprocess.PIPE, text=True
    ) as process:
        port = int(process.stdout.readline().rsplit(" ", 1)[1])
        send_labels([["7 upper muntin", "hinges left"]], host=HOST, port=port)
        assert "| 7 upper muntin |" in process.stdout.read()
        assert process.wait(timeout=10) == 0


@pytest.mark.parametrize("host", ["192.168..5", ".", "a" * 300, "ä..b", "\x00"])
def test_a_name_that_is_none_is_told_and_printing_goes_on_working(host, printer):
    with pytest.raises(PrinterError) as refused:
        send_labels([["one"]], host=host, port=9321)
    assert "\n" not in str(refused.value)
    assert send_labels([["one"]], host=HOST, port=printer.port) == 1


def test_a_printer_that_drips_is_given_up_after_the_time_for_the_whole_talk(monkeypatch):
    """A letter every 20 ms, and never a line: each of them comes in time."""
    monkeypatch.setattr("oakmeasure.gauges.label_client.WAIT_S", 0.2)
    with socket.create_server((HOST, 0)) as server:
        drips = threading.Event()

        def drip() -> None:
            line, _ = server.accept()
            with line, contextlib.suppress(OSError):
                while not drips.wait(0.02):
                    line.sendall(b"O")

        thread = threading.Thread(target=drip, daemon=True)
        thread.start()
        with pytest.raises(PrinterError, match="no answer"):
            send_labels([["one"]], host=HOST, port=server.getsockname()[1])
        drips.set()
        thread.join()


@pytest.mark.parametrize("sent", [b"LABEL \xc2\xb2\nx\n", b"LABEL \xd9\xa1\nx\n", b"\xff\xfe\n", b"LABEL " + b"9" * 99])
def test_the_simulated_printer_outlives_whatever_it_is_sent(sent, printer):
    with socket.create_connection((HOST, printer.port), timeout=5) as line:
        line.sendall(sent + b"\n")
        assert line.recv(200).startswith(b"ERR")
    assert send_labels([["after it"]], host=HOST, port=printer.port) == 1
    assert printer.tape[-1] == ("after it",)
