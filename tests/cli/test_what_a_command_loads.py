"""A short answer loads little: no window, no database, and a calculation no document and no rules."""

import subprocess
import sys

import pytest

CALC = ["calc", "heat-input", "process=SMAW", "volts=22..26", "amps=110", "speed=4..6in/min"]
COUPON = ["coupon", "--code", "asme-ix", "process=SMAW", "thickness=14mm"]
ALWAYS_HEAVY = (
    "PySide6",
    "sqlalchemy",
    "numpy",
    "scipy",
    "reportlab",
    "openpyxl",
    "ezdxf",
    "anlage.ui",
    "anlage.store",
)
DOCUMENTS = (
    "anlage.core.document",
    "anlage.core.procedure",
    "anlage.core.record",
    "anlage.core.codes",
    "anlage.core.joint",
)
SAVED = ("anlage.core.document", "anlage.core.procedure", "anlage.core.record", "anlage.core.rulebook")
LIST = "import sys; from anlage.cli.main import run; run(sys.argv[1:]); print(*sys.modules, sep='\\n', file=sys.stderr)"


@pytest.mark.parametrize(("words", "unwanted"), [(CALC, ALWAYS_HEAVY + DOCUMENTS), (COUPON, ALWAYS_HEAVY + SAVED)])
def test_a_command_loads_no_more_than_it_answers_from(words, unwanted):
    ran = subprocess.run([sys.executable, "-c", LIST, *words], capture_output=True, text=True, check=True)
    loaded = ran.stderr.split()
    assert "anlage.core.quantities" in loaded
    assert [name for name in loaded if name.startswith(unwanted)] == []
