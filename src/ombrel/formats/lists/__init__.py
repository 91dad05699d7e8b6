"""Input lists as bands, theatres, churches and companies send them."""

from .book import LONGEST_FILE, MOST_COLUMNS, MOST_ROWS, Book, read_book
from .listing import Choices, ListRead
from .reading import Reading, read_lists
from .rows import Row
from .words import ROLES, Role

__all__ = [
    "LONGEST_FILE",
    "MOST_COLUMNS",
    "MOST_ROWS",
    "ROLES",
    "Book",
    "Choices",
    "ListRead",
    "Reading",
    "Role",
    "Row",
    "read_book",
    "read_lists",
]
