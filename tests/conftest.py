"""What every test shares: the shipped tables, and a window system that needs no screen."""

import os

import pytest

from anlage.data import catalogue, unit_table, vocabulary
from anlage.data.code_packs import code_pack

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")


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
