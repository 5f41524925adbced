"""`anlage` alone: the window on the works file that was open last."""

import argparse

from anlage.cli.screen import run_window
from anlage.session.machine.settings import last_works


def add_arguments(_parser: argparse.ArgumentParser) -> None:
    """Say what the command takes: nothing."""


def answer(_arguments: argparse.Namespace) -> int:
    """Open the window and return the exit status."""
    return run_window(last_works)
