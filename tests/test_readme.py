"""What the README shows works as shown."""

import re
import shlex
from pathlib import Path

import pytest

from anlage.cli.main import run

HERE = Path(__file__).parents[1]
README = (HERE / "README.md").read_text(encoding="utf-8")
COMMANDS = re.findall(r"^anlage (.*)$", README.replace("\\\n", " "), re.MULTILINE)


@pytest.mark.parametrize("command", COMMANDS)
def test_a_command_of_the_readme_answers(command, capsys, tmp_path, monkeypatch):
    (tmp_path / "src").symlink_to(HERE / "src")
    monkeypatch.chdir(tmp_path)  # what a command writes is not left here
    assert run(shlex.split(command)) == 0
    assert capsys.readouterr().err == ""


def test_the_readme_shows_commands():
    assert len(COMMANDS) >= 6
