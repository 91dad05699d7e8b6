from tests.screens.conftest import _another_file, server  # noqa: F401 (fixtures)
