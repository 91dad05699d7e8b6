import pytest
from hypothesis import settings

# The first draw of a random show builds its address list: a deadline would measure that.
settings.register_profile("ombrel", deadline=None)
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
