"""Secrets that an installation makes for itself, once, however many processes begin together."""

import contextlib
import os
import secrets
from pathlib import Path
from tempfile import mkstemp

__all__ = ["kept_secret"]


def kept_secret(folder: Path, name: str) -> str:
    """A secret in a file that its owner alone can read: made by whoever comes first.

    It is written whole elsewhere and then given its name, which only one can do: nobody ever reads
    a part of one, and all read the same. Raises OSError where the folder cannot be written.
    """
    path = folder / name
    if not path.exists():
        folder.mkdir(parents=True, exist_ok=True)
        handle, made = mkstemp(prefix=f".{name}-", dir=folder)  # for its owner alone
        try:
            with os.fdopen(handle, "w") as file:
                file.write(secrets.token_urlsafe(48))
                file.flush()
                os.fsync(file.fileno())
            with contextlib.suppress(FileExistsError):
                os.link(made, path)
        finally:
            os.unlink(made)
    return path.read_text().strip()
