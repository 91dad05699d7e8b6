"""QR codes as pictures that ship with the page: an SVG in a data address."""

import segno

__all__ = ["qr_picture"]


def qr_picture(text: str) -> str:
    """A text as a QR code, an SVG as a data URI; with what it needs to be read when partly dirty.

    Raises ValueError for a text that is longer than a code holds.
    """
    code = segno.make(text, error="m", micro=False)
    uri: str = code.svg_data_uri(scale=6, border=3, dark="#14121a", light="#ffffff")
    return uri
