"""Gauges: the line protocol, rubbish, the simulated gauge on a real pseudo-terminal, unplugging."""

from __future__ import annotations

import contextlib
import re
import subprocess
import sys
import time
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.gauges.port import MOST_A_SECOND, GaugePort, GaugeState, LinesASecond
from oakmeasure.gauges.protocol import LONGEST_LINE, BadLineError, GaugeReading, Lines, Quantity, line_of, parse_line
from oakmeasure.gauges.simulated import RUBBISH, SimulatedGauge


@pytest.mark.parametrize(
    ("line", "quantity", "value"),
    [
        (b"D 742.5 mm", Quantity.DISTANCE, 742.5),
        (b"D 2.031 m\r\n", Quantity.DISTANCE, 2031.0),
        (b"D 1 in", Quantity.DISTANCE, 25.4),
        (b"S -1.2 mm/m", Quantity.SLOPE, -1.2),
        (b"A 38.25 deg", Quantity.ANGLE, 38.25),
        (b"D 742.5 mm*6E", Quantity.DISTANCE, 742.5),
    ],
)
def test_line_of_the_documentation_is_read(line, quantity, value):
    assert parse_line(line) == GaugeReading(quantity, pytest.approx(value))


def test_examples_of_the_documentation_are_read():
    text = Path(__file__).parents[2].joinpath("docs/gauges.md").read_text(encoding="utf-8")
    examples = [line for line in text.splitlines() if re.match(r"[DSA] -?\d", line)]
    assert len(examples) == 3
    for line in examples:
        parse_line(line.encode())


@pytest.mark.parametrize(
    "line",
    [
        *RUBBISH,
        b"",
        b"D",
        b"742",
        b"D 742.5",
        b"D 742.5 deg",
        b"S 1 mm",
        b"A 3 mm/m",
        b"D nan mm",
        b"D 1e3 mm",
        b"D 742.5 mm*",
        b"D 742.5 mm*6",
        b"D 742.5 mm*00",
        b"D 7 mm" + b" " * 100,
    ],
)
def test_rubbish_is_refused_with_a_reason(line):
    with pytest.raises(BadLineError) as refused:
        parse_line(line.rstrip(b"\r\n"))
    assert str(refused.value)


@given(st.sampled_from(list(Quantity)), st.floats(-300, 300).map(lambda v: round(v, 2)))
def test_line_is_read_back(quantity, value):
    assert parse_line(line_of(GaugeReading(quantity, value))) == GaugeReading(quantity, pytest.approx(value))


@given(st.lists(st.binary(max_size=200), max_size=20))
def test_whatever_arrives_in_whatever_pieces_takes_no_room_and_never_fails(pieces):
    lines = Lines()
    found = [line for piece in pieces for line in lines.feed(piece)]
    assert all(len(line) <= LONGEST_LINE + 1 for line in found)
    assert len(lines._rest) <= LONGEST_LINE
    for line in found:
        with contextlib.suppress(BadLineError):
            parse_line(line)


@given(st.data())
def test_lines_cut_anywhere_come_out_whole(data):
    sent = [line_of(GaugeReading(Quantity.DISTANCE, float(at))) for at in range(1, 6)]
    stream, lines, found = b"".join(sent), Lines(), []
    while stream:
        cut = data.draw(st.integers(1, len(stream)))
        found += lines.feed(stream[:cut])
        stream = stream[cut:]
    assert [parse_line(line).value for line in found] == [1, 2, 3, 4, 5]


class Heard:
    def __init__(self, path):
        self.readings, self.bad, self.states = [], [], []
        self.port = GaugePort(
            path,
            on_reading=self.readings.append,
            on_bad=lambda line, reason: self.bad.append((line, reason)),
            on_state=lambda state, _reason: self.states.append(state),
        )
        self.port.start()

    def wait(self, what, seconds=5.0):
        end = time.monotonic() + seconds
        while not what() and time.monotonic() < end:
            time.sleep(0.01)
        assert what()


@pytest.fixture
def gauge():
    made = SimulatedGauge(bad_share=0.0, seed=4)
    heard = Heard(made.path)
    yield made, heard
    heard.port.stop()
    made.close()


def test_readings_arrive_with_noise_and_bad_lines_are_told_and_left_out(gauge):
    made, heard = gauge
    heard.wait(lambda: GaugeState.READY in heard.states)
    for rubbish in RUBBISH:
        made.send(rubbish)
    sent = [made.press(742.0) for _ in range(20)]
    heard.wait(lambda: len(heard.readings) == 20)
    assert [each.value for each in heard.readings] == sent
    assert len(heard.bad) == len(RUBBISH)
    assert all(abs(each - 742.0) < 2 for each in sent)
    assert len(set(sent)) > 5


def test_unplugged_gauge_is_waited_for_and_taken_up_again(gauge):
    made, heard = gauge
    heard.wait(lambda: GaugeState.READY in heard.states)
    made.unplug()
    heard.wait(lambda: GaugeState.UNPLUGGED in heard.states)
    made.plug_in()
    heard.wait(lambda: heard.states.count(GaugeState.READY) == 2)
    made.press(100.0)
    heard.wait(lambda: len(heard.readings) == 1)
    heard.port.stop()
    assert heard.states[-1] is GaugeState.STOPPED


def test_port_that_is_not_there_is_said_and_stop_ends_the_waiting():
    heard = Heard("/dev/no-such-port")
    heard.wait(lambda: GaugeState.UNPLUGGED in heard.states)
    heard.port.stop()
    assert heard.states[-1] is GaugeState.STOPPED


def test_gauge_from_the_command_line_is_listened_to():
    program = "from oakmeasure.cli.main import main; main()"
    options = ["gauge-sim", "--every", "0", "--values", "742,2031", "--bad", "0"]
    done = subprocess.Popen(
        [sys.executable, "-c", program, *options], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    )
    try:
        heard = Heard(done.stdout.readline().strip())
        heard.wait(lambda: GaugeState.READY in heard.states)
        for _ in range(2):
            done.stdin.write("\n")
            done.stdin.flush()
        heard.wait(lambda: len(heard.readings) == 2)
        assert [round(each.value, -1) for each in heard.readings] == [740, 2030]
        heard.port.stop()
    finally:
        done.stdin.close()
        done.wait(timeout=10)
        done.stdout.close()


def test_a_gauge_that_floods_is_told_once_a_second_and_the_rest_is_left_out():
    pace, through, told = LinesASecond(MOST_A_SECOND), 0, 0
    for n in range(3000):
        goes = pace.goes(100.0 + n / 1000)
        through += goes
        told += not goes and pace.is_first_over
    assert (through, told) == (3 * MOST_A_SECOND, 3)


@pytest.mark.parametrize("option", ["--values=nan", "--values=742,inf", "--noise=inf", "--bad=nan", "--every=-1"])
def test_a_simulated_gauge_is_told_numbers(option):
    done = subprocess.run(
        [sys.executable, "-m", "oakmeasure", "gauge-sim", "--count=1", option],
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.returncode == 2
    assert "needs" in done.stderr
