"""A machine that lacks something says in one line what, and which package brings it."""

import importlib.util
import sys
from pathlib import Path

import pytest

TOOL = Path(__file__).parents[1] / "tools" / "machine.py"


@pytest.fixture
def machine():
    spec = importlib.util.spec_from_file_location("machine", TOOL)
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def test_a_missing_library_is_named_with_its_package(machine, monkeypatch, capsys):
    monkeypatch.setattr(machine, "OFFSCREEN", {"libnothing-of-the-kind.so.9": "libnothing9"})
    monkeypatch.setattr(sys, "argv", ["machine.py", "offscreen"])
    assert machine.main() == 1
    line = capsys.readouterr().err
    assert (
        line == "machine: system libraries of the window are missing; install them with: apt-get install libnothing9\n"
    )


def test_a_machine_that_lacks_nothing_says_nothing(machine, monkeypatch, capsys):
    monkeypatch.setattr(sys, "argv", ["machine.py", "offscreen"])
    assert (machine.main(), capsys.readouterr().err) == (0, "")


def test_an_old_python_is_named(machine, monkeypatch):
    monkeypatch.setattr(machine.sys, "version_info", (3, 9, 2))
    what, packages = machine.missing("build")
    assert "needs Python 3.11" in what
    assert "python3.11-venv" in packages
