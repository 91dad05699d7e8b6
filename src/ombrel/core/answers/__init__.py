"""Why something arrives or not, what would help, what an edit would do, what must hold."""

from .answer import may_explain_otherwise, why
from .hear import hear, typed_level_db
from .loudest import loudest
from .preview import Preview, preview
from .promises import Judged, make_promise, mended, newly_broken, promise_moves, promises
from .reach import closing, reach
from .reason import Reason, Remedy
from .silent import silent
from .steps import Step

__all__ = [
    "Judged",
    "Preview",
    "Reason",
    "Remedy",
    "Step",
    "closing",
    "hear",
    "loudest",
    "make_promise",
    "may_explain_otherwise",
    "mended",
    "newly_broken",
    "preview",
    "promise_moves",
    "promises",
    "reach",
    "silent",
    "typed_level_db",
    "why",
]
