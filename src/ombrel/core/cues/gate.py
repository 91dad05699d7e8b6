"""What of a stream of messages is taken: each once, and no flood. Numbers in, verdicts out."""

from collections import OrderedDict, deque
from typing import Final, Literal

__all__ = ["FLOOD", "Gate", "Verdict"]

Verdict = Literal["take", "once", "flood"]
FLOOD: Final = 20  # of one sender in a second; what goes beyond is dropped
_SECOND_S: Final = 1.0
_MOST_SENDERS: Final = 256
_MOST_KNOWN: Final = 1_024


class Gate:
    """Remembers what came lately, so much and no more: the longest silent is forgotten first.

    `once_s`: the same from one sender within so long of the last counts once, however often.
    """

    def __init__(self, once_s: float) -> None:
        self.once_s = once_s
        self._said: OrderedDict[tuple[str, str], float] = OrderedDict()
        self._came: OrderedDict[str, deque[float]] = OrderedDict()

    def judge(self, sender: str, heard: str, at_s: float) -> Verdict:
        """What becomes of a message that came at `at_s` by a clock that never goes back.

        A flood is judged by all that comes, dropped or not: it ends when its sender is slower.
        """
        came = self._came.setdefault(sender, deque(maxlen=FLOOD + 1))
        self._came.move_to_end(sender)
        came.append(at_s)
        if len(self._came) > _MOST_SENDERS:
            self._came.popitem(last=False)
        last = self._said.pop((sender, heard), None)
        self._said[sender, heard] = at_s
        if len(self._said) > _MOST_KNOWN:
            self._said.popitem(last=False)
        if len(came) > FLOOD and at_s - came[0] < _SECOND_S:
            return "flood"
        if last is not None and at_s - last < self.once_s:
            return "once"
        return "take"
