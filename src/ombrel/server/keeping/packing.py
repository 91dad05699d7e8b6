"""Long texts kept once: what scenes hold is mostly what their neighbours hold.

In the store a held text is `{"packed": digest}`, and the text stands in a table of its own by its
digest; in memory it is one string, shared by all scenes that hold it.
"""

import hashlib
from collections.abc import Iterable, Mapping
from functools import lru_cache

from django.db.models import Value

from ombrel.core import in_scene

from .. import models

__all__ = ["as_kept", "unpacked"]

_CHUNK = 2_000


@lru_cache(maxsize=40_000)
def _digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()


def as_kept(*several: dict[str, object]) -> list[dict[str, object]]:
    """Values as the store has them; the texts that they stand for are kept with them."""
    texts: dict[str, str] = {}
    found = []
    for values in several:
        packed = dict(values)
        for address, value in values.items():
            if isinstance(value, str) and value and in_scene(address):
                texts[_digest(value)] = value
                packed[address] = {"packed": _digest(value)}
        found.append(packed)
    models.PackedText.objects.bulk_create(
        # as expressions: in an array, as many rows are sent else, each quote is escaped by hand
        [models.PackedText(digest=digest, text=Value(text)) for digest, text in texts.items()],
        ignore_conflicts=True,
        batch_size=_CHUNK,
    )
    return found


def unpacked(values: Mapping[str, object]) -> dict[str, object]:
    """Values as they are, from how the store has them."""
    wanted = {one["packed"] for one in values.values() if isinstance(one, dict)}
    if not wanted:
        return dict(values)
    texts = _texts(sorted(wanted))
    return {
        address: texts[one["packed"]] if isinstance(one, dict) else one
        for address, one in values.items()
    }


def _texts(digests: Iterable[str]) -> dict[str, str]:
    wanted, found = list(digests), dict[str, str]()
    for first in range(0, len(wanted), _CHUNK):
        rows = models.PackedText.objects.filter(digest__in=wanted[first : first + _CHUNK])
        found.update(rows.values_list("digest", "text"))
    return found
