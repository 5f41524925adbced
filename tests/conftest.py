"""What every test shares: the shipped tables, and a window system that needs no screen."""

import os

import pytest
from hypothesis import settings

from anlage.data.code_packs import code_pack
from anlage.data.tables import catalogue, unit_table, vocabulary
from anlage.session.works.materials import take_materials

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

# No clock in a test: a slow machine is no fault. The same examples each time where many share one result.
settings.register_profile("anlage", deadline=None, derandomize="CI" in os.environ)
settings.register_profile("thorough", deadline=None, max_examples=2000)  # pytest --hypothesis-profile thorough
settings.load_profile("anlage")


@pytest.fixture(scope="session")
def units():
    return unit_table()


@pytest.fixture(scope="session")
def words():
    return vocabulary()


@pytest.fixture(scope="session")
def shelves():
    return catalogue()


@pytest.fixture(scope="session")
def asme():
    return code_pack("asme-ix")


@pytest.fixture(autouse=True)
def _as_shipped():
    """Leave no metal of a works behind: a process has one works at hand, and these tests many."""
    yield
    take_materials(None)
