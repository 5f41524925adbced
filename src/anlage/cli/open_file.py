"""`anlage FILE.anlage`: the window on a works file, as a double click on one asks for."""

import argparse
from pathlib import Path

from anlage.cli.screen import run_window
from anlage.core.errors import FormatError


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE.anlage", help="the works file to open")


def answer(arguments: argparse.Namespace) -> int:
    """Open the window and return the exit status.

    Raises
    ------
    FormatError : there is no such file
    """
    path = Path(arguments.file)
    if not path.exists():
        raise FormatError("there is no such file", where=arguments.file, mend="check the name and folder")
    return run_window(lambda _settings: path)
