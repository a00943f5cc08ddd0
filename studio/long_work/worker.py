"""The process beside the server in which long work is done, so that the table stays quick and a crash stays there.

It is `manage.py work`: it reads names of work from its input, one a line, and says each when it is through with it. It
ends when its input does, so that it never outlives the server.
"""

import subprocess
import sys
from collections.abc import Callable
from threading import RLock, Thread, Timer

from django.conf import settings
from django.db import connections

#: Seconds that work which was stopped may take to notice; then its process is ended and another one begun.
GRACE = 2.0


class Worker:
    """One process at a time, begun when it is first needed, with the names of what it was handed, in order.

    Args:
        died: told of the work that its process died of.
    """

    def __init__(self, died: Callable[[str], None]) -> None:
        self._died = died
        self._process: subprocess.Popen[str] | None = None
        self._handed: list[str] = []
        self._stale = False
        self._lock = RLock()

    def start(self) -> None:
        """Begin the process, if there is none."""
        with self._lock:
            if self._process is None:
                self._process = subprocess.Popen(
                    [sys.executable, str(settings.ROOT / "manage.py"), "work"],
                    stdin=subprocess.PIPE,
                    stdout=subprocess.PIPE,
                    text=True,
                    bufsize=1,
                )
                Thread(target=self._listen, args=(self._process,), daemon=True).start()

    def hand(self, uid: str) -> None:
        """Give the process a piece of work."""
        with self._lock:
            self.start()
            self._handed.append(uid)
            self._tell(uid)

    def let_go(self, uid: str) -> None:
        """See to it that work which was stopped ends, whatever it is doing."""
        with self._lock:
            if uid not in self._handed:
                return
            timer = Timer(GRACE, self._end, args=(uid, self._process))
        timer.daemon = True
        timer.start()

    def renew(self) -> None:
        """Begin without what the process remembers: at once where it has nothing to do, else once it is through."""
        with self._lock:
            self._stale = True
            self._end_stale()

    def _end_stale(self) -> None:
        if self._stale and not self._handed and self._process is not None:
            self._stale = False
            self._process.kill()

    def _tell(self, uid: str) -> None:
        process = self._process
        try:
            assert process is not None and process.stdin is not None
            process.stdin.write(f"{uid}\n")
            process.stdin.flush()
        except OSError:
            # It died just now: whoever listens to it hands this on to the next one.
            return

    def _end(self, uid: str, process: subprocess.Popen[str] | None) -> None:
        with self._lock:
            if process is not None and process is self._process and self._handed[:1] == [uid]:
                process.kill()

    def _listen(self, process: subprocess.Popen[str]) -> None:
        assert process.stdout is not None
        for line in process.stdout:
            with self._lock:
                if (uid := line.strip()) in self._handed:
                    self._handed.remove(uid)
                    self._end_stale()
        process.wait()
        self._process_ended()

    def _process_ended(self) -> None:
        """Tell of the work that died with its process, and hand the rest to a new one."""
        with self._lock:
            self._process, self._stale = None, False
            handed, self._handed = self._handed, []
        for uid in handed[:1]:
            self._died(uid)
        connections.close_all()
        for uid in handed[1:]:
            self.hand(uid)
