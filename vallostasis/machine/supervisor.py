"""Keeping a program running: started again when it crashed, stopped when it is told to stop."""

import signal
import subprocess
import threading
from types import FrameType

from vallostasis.machine.packages import say

# Between two starts; a program that crashes at once is not started a thousand times a minute. [s]
FIRST_PAUSE_S, LONGEST_PAUSE_S = 1.0, 60.0


def keep_running(command: list[str], first_pause_s: float = FIRST_PAUSE_S) -> int:
    """Run a program until it ends by itself or this one is told to stop; return how it ended.

    It ends by itself with 0, or with 1 and a sentence of what is in the way: then it is not started again.
    """
    command = [part for part in command if part != "--supervise"]
    stopping = threading.Event()
    running: list[subprocess.Popen[bytes]] = []

    def stop(what: int, _frame: FrameType | None) -> None:
        stopping.set()
        for child in running:
            child.send_signal(what)

    for told in (signal.SIGTERM, signal.SIGINT):
        signal.signal(told, stop)
    pause_s = first_pause_s
    while True:
        with subprocess.Popen(command) as child:
            running[:] = [child]
            ended = child.wait()
        if stopping.is_set() or ended in (0, 1, 2):
            return max(ended, 0)
        say(f"it ended with {ended}: starting it again in {pause_s:g} s")
        if stopping.wait(pause_s):
            return 0
        pause_s = min(2 * pause_s, LONGEST_PAUSE_S)
