import os

import pytest
from hypothesis import settings

# Fixed seeds, so that a green run stays green; new ones in a run of their own: OMBREL_NEW_SEEDS=1.
# No deadline: it would measure the machine, and the first draw of a random show.
new_seeds = bool(os.environ.get("OMBREL_NEW_SEEDS"))
settings.register_profile(
    "ombrel", deadline=None, derandomize=not new_seeds, database=None,
    max_examples=100 if new_seeds else 50,
)  # fmt: skip
settings.load_profile("ombrel")


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup, django_db_blocker):
    """Asynchronous tests leave connections in threads that ended with their event loop; PostgreSQL

    drops the test database only when those are gone.
    """
    from django.db import connection

    yield
    with django_db_blocker.unblock(), connection.cursor() as cursor:
        cursor.execute(
            "select pg_terminate_backend(pid) from pg_stat_activity"
            " where datname = current_database() and pid <> pg_backend_pid()"
        )
