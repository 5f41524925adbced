"""A procedure whose section is run."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER


@pytest.fixture(scope="session")
def pipe():
    """The heating feeder, pipe of 141.3 × 6.55 mm, with a piece of 150 mm to either side."""
    wps = read_strict((FOLDER / "demo" / "OST-W-02.json").read_text(), WPS, where="demo")
    return with_at(wps, "piece/half_width_mm", 150.0)
