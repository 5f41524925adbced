"""`anlage` alone: the window on the works file that was open last."""

import argparse
from importlib import import_module

from anlage.cli.screen import require_screen


def add_arguments(_parser: argparse.ArgumentParser) -> None:
    """Say what the command takes: nothing."""


def answer(_arguments: argparse.Namespace) -> int:
    """Open the window and return the exit status."""
    require_screen()
    app = import_module("anlage.ui.desk.app")  # the window library loads once it is sure that there is a screen
    return int(app.run(app.last_works))
