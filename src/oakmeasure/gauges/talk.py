"""A line from a socket within a time over the whole of it: one that drips is not waited for for ever."""

from __future__ import annotations

import socket
import time


class Talk:
    """What is said over a socket, cut into lines."""

    def __init__(self, line: socket.socket) -> None:
        self._line = line
        self._rest = b""

    def read_line(self, *, most: int, seconds: float) -> bytes:
        """Return the next line with its end; without one where it is too long or the other side hung up.

        Args:
            most: Bytes that it may have at the most.
            seconds: In which the whole of it must have come, s.

        Raises:
            TimeoutError: It has not.
        """
        until = time.monotonic() + seconds
        while b"\n" not in self._rest and len(self._rest) < most:
            left = until - time.monotonic()
            if left <= 0:
                raise TimeoutError
            self._line.settimeout(left)
            received = self._line.recv(4096)
            if not received:
                break
            self._rest += received
        end = self._rest.find(b"\n") + 1 or len(self._rest)
        end = min(end, most)
        line, self._rest = self._rest[:end], self._rest[end:]
        return line
