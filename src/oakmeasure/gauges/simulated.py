"""A gauge that is not there: it sends readings on a pseudo-terminal, with noise and the occasional bad line."""

from __future__ import annotations

import contextlib
import os
import random
import tempfile
import tty
from pathlib import Path

from oakmeasure.gauges.protocol import GaugeReading, Quantity, line_of

RUBBISH = (
    b"D 7\x00\xff42..5 mm\r\n",
    b"BATTERY LOW\r\n",
    b"D 742.5 mm*00\r\n",
    b"\xfe\xfd\xfc\r\n",
    b"D 99999999 mm\r\n",
)


class SimulatedGauge:
    """`path` is what to connect to; it stays the same when the gauge is unplugged and plugged in again."""

    def __init__(self, *, noise: float = 0.3, bad_share: float = 0.12, seed: int = 1) -> None:
        """noise: standard deviation of a distance, mm. bad_share: of presses before which a bad line is sent."""
        self.noise, self.bad_share = noise, bad_share
        self._source = random.Random(seed)
        self._folder = tempfile.TemporaryDirectory(prefix="oak-measure-gauge-")
        self.path = str(Path(self._folder.name) / "gauge")
        self._ends: tuple[int, int] | None = None
        self.plug_in()

    def plug_in(self) -> None:
        """Appear at `path`."""
        if self._ends is not None:
            return
        master, slave = os.openpty()
        tty.setraw(slave)
        os.set_blocking(master, False)
        self._ends = (master, slave)
        with contextlib.suppress(FileNotFoundError):
            os.unlink(self.path)
        os.symlink(os.ttyname(slave), self.path)

    def unplug(self) -> None:
        """Vanish, as when the cable is pulled."""
        if self._ends is None:
            return
        for each in self._ends:
            with contextlib.suppress(OSError):
                os.close(each)
        self._ends = None
        with contextlib.suppress(FileNotFoundError):
            os.unlink(self.path)

    def close(self) -> None:
        """Vanish for good."""
        self.unplug()
        self._folder.cleanup()

    def press(self, true_value: float, quantity: Quantity = Quantity.DISTANCE) -> float:
        """Send a reading of something that truly is `true_value`; returns what was sent, to a hundredth.

        Now and then a bad line goes before it.

        Args:
            true_value: What there is to be read, mm or %.
            quantity: What is read.
        """
        if self._source.random() < self.bad_share:
            self.send(self._source.choice(RUBBISH))
        value = round(true_value + self._source.gauss(0, self.noise), 2)
        self.send(line_of(GaugeReading(quantity, value)))
        return value

    def send(self, line: bytes) -> None:
        """Send bytes as they are; lost when it is unplugged or nobody listens.

        Args:
            line: The line with its end.
        """
        if self._ends is not None:
            with contextlib.suppress(OSError):
                os.write(self._ends[0], line)
