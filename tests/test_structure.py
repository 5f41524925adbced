"""The house rules that no tool checks: what core may not call, what a start may not load, what a docstring must say."""

import ast
import importlib
import inspect
import pkgutil
import re
import subprocess
import sys
from pathlib import Path

import pytest

import anlage.core
from anlage.data.tables import processes

SOURCE = Path(inspect.getfile(anlage.core)).parent
MODULES = sorted(info.name for info in pkgutil.walk_packages(anlage.core.__path__, "anlage.core."))
BRACKETS = {
    "_kj_mm": "kJ/mm", "_mm_min": "mm/min", "_mm_s": "mm/s", "_kg_m": "kg/m", "_g_cm3": "g/cm³", "_mm2": "mm²",
    "_mm": "mm", "_deg": "°", "_c": "°C", "_a": "A", "_v": "V", "_w": "W", "_j": "J", "_s": "s", "_percent": "%",
}  # fmt: skip
FORMULAS = {
    "a_numbers", "arc_energy", "arc_energy_from_energy", "arc_energy_from_power", "clock_arc", "heat_input",
    "joint_metal", "run_out", "throat_mm", "dihedral_deg", "saddle", "wire_bead_area", "deposition_rate",
    "bead_area_of_rate", "electrode_metal", "transverse", "fillet_turn", "fillet_transverse", "electrode_count",
    "takes", "stops_along", "tube_welds", "cope", "accommodation", "cen", "ac3_andrews", "seferian_ferrite",
    "delong_number", "ferrite_estimate", "solidification_mode", "read_off", "mixed", "weld_metal", "buttered",
    "weld_strength", "cooling_time_thick", "cooling_time_thin", "transition_thickness", "cooling_time_series",
    "cooling_time", "yurioka", "yurioka_hardness", "duren_hardness", "method_b", "ito_bessyo", "seferian",
    "governing_cet", "combined_thickness", "susceptibility", "asked_preheat", "hollomon_jaffe", "equivalent_time",
    "added_up", "ramp_time", "heating_rates", "diffusivity", "hydrogen_left", "hold_time", "purged_volume",
    "purge_time", "oxygen_left", "thumb_time", "leak_floor", "along_factor", "along_slope", "leaving",
    "enthalpy_curve",
}  # fmt: skip


@pytest.mark.parametrize("path", sorted(SOURCE.rglob("*.py")), ids=lambda path: path.stem)
def test_core_neither_opens_files_nor_prints(path):
    calls = {node.func.id for node in ast.walk(ast.parse(path.read_text())) if isinstance(node, ast.Call)
             and isinstance(node.func, ast.Name)}  # fmt: skip
    assert not calls & {"open", "print", "input", "exec", "eval", "__import__"}


def test_no_module_of_the_product_is_too_long_to_think_about():
    long = [path.name for path in SOURCE.parent.rglob("*.py") if len(path.read_text().splitlines()) > 500]
    assert long == []


def public_functions():
    for name in MODULES:
        module = importlib.import_module(name)
        for member, function in vars(module).items():
            if inspect.isfunction(function) and function.__module__ == name and not member.startswith("_"):
                yield pytest.param(function, id=f"{name.removeprefix('anlage.core.')}.{member}")


def section(function, title):
    match = re.search(rf"^\s*{title}\n\s*-+\n(.*?)(?=^\s*\w+\n\s*-+\n|\Z)", function.__doc__ or "", re.S | re.M)
    return match[1] if match else None


@pytest.mark.parametrize("function", list(public_functions()))
def test_a_docstring_names_its_parameters_in_order_with_their_units(function):
    assert function.__doc__
    listed = section(function, "Parameters")
    if listed is None:
        return
    named = [name.strip() for line in re.findall(r"^ {4}(\w[\w, ]*) :", listed, re.M) for name in line.split(",")]
    assert named == [name for name in inspect.signature(function).parameters if name in named]
    for line in re.findall(r"^ {4}(\w[\w, ]*) : (.*)$", listed, re.M):
        ending = next((end for end in BRACKETS if line[0].strip().endswith(end)), None)
        if ending and inspect.signature(function).parameters[line[0].split(",")[0].strip()].annotation is float:
            assert f"[{BRACKETS[ending]}]" in line[1], line


@pytest.mark.parametrize("function", [p for p in public_functions() if p.values[0].__name__ in FORMULAS])
def test_a_formula_says_validity_sources_and_an_example(function):
    assert all(section(function, title) for title in ("Validity", "Sources", "Examples"))


def test_every_formula_on_the_list_exists():
    assert {parameter.values[0].__name__ for parameter in public_functions()} >= FORMULAS


@pytest.mark.parametrize(
    "words", [["calc", "heat-input", "process=SMAW", "volts=22", "amps=110", "speed=100mm/min"],
              ["calc", "cooling", "heat_input=1.6kJ/mm", "thickness=18mm", "preheat=120degC"],
              ["coupon", "--code", "asme-ix", "process=SMAW", "thickness=10mm"]],
)  # fmt: skip
def test_a_calculation_loads_neither_window_nor_database(words):
    code = f"import sys; from anlage.cli.main import run; run({words!r}); print(*sys.modules, file=sys.stderr)"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    loaded = {name.split(".")[0] for name in done.stderr.split()}
    assert "anlage" in loaded
    assert not loaded & {"PySide6", "shiboken6", "sqlalchemy", "sqlite3", "numpy", "scipy", "shapely"}


STARTED = """
import sys
from anlage.session.machine.settings import Settings
from anlage.ui.desk.app import application, open_window
running = application(["anlage"])
loaded = []
window = open_window(Settings(), lambda: None, lambda _settings: None)
window.shell.painted.disconnect()
window.shell.painted.connect(lambda: loaded.extend(sys.modules))
while not loaded:
    running.processEvents()
print(*loaded)
"""


def test_the_first_paint_waits_for_no_document_table_database_or_drawing_library():
    done = subprocess.run([sys.executable, "-c", STARTED], capture_output=True, text=True, check=True)
    loaded = set(done.stdout.split())
    assert "PySide6.QtWidgets" in loaded
    heavy = {
        "sqlalchemy",
        "scipy",
        "numpy",
        "shapely",
        "pyqtgraph",
        "reportlab",
        "ezdxf",
        "openpyxl",
        "sqlite3",
    }
    assert not loaded & heavy
    assert not {
        name for name in loaded if name.startswith(("anlage.core.procedure", "anlage.store", "anlage.data.tables"))
    }


def test_widgets_and_presenters_hold_no_formula():
    """Numbers of the trade belong to the layers below: the window imports no formula and no rule."""
    allowed = {
        "errors",
        "results",
        "drawing",
        "document",
        "procedure",
        "record",
        "quantities",
        "ranges",
        "joint",
        "machine",
        "materials",
        "rulebook",
    }
    for path in (SOURCE.parent / "ui").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("anlage.core."):
                assert node.module.split(".")[2] in allowed, (path.name, node.module)


def stated_words(path):
    """Every text of a module that is no docstring."""
    tree = ast.parse(path.read_text())
    documented = (ast.Module, ast.ClassDef, ast.FunctionDef, ast.AsyncFunctionDef)
    docs = {id(node.body[0].value) for node in ast.walk(tree)
            if isinstance(node, documented) and node.body and isinstance(node.body[0], ast.Expr)}  # fmt: skip
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docs:
            yield node.value


@pytest.mark.parametrize("folder", ["core/codes", "session"])
def test_whatever_judges_names_no_process(folder):
    """What binds a process stands in packs, what a process is in its table."""
    named = {(path.name, word) for path in (SOURCE.parent / folder).rglob("*.py") for word in stated_words(path)
             if word in processes()}  # fmt: skip
    assert named == set()


@pytest.mark.parametrize("folder", ["core/codes", "session/judging"])
def test_whatever_judges_names_no_clause_and_no_group_of_metals(folder):
    pattern = re.compile(r"\b[A-Z]{2}-\d{3}|\bP-(?:No\. ?)?\d|\bF-\d")
    named = {(path.name, word) for path in (SOURCE.parent / folder).rglob("*.py") for word in stated_words(path)
             if pattern.search(word)}  # fmt: skip
    assert named == set()
