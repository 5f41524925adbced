"""`anlage demo`: the window on the demo."""

import argparse
from importlib import import_module
from pathlib import Path

from anlage.cli.screen import run_window
from anlage.session.machine.clock import utc_now


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("--reset", action="store_true", help="make it anew; the old one is kept beside it")


def answer(arguments: argparse.Namespace) -> int:
    """Open the window and return the exit status."""

    def demo(_settings: object) -> Path:
        works = import_module("anlage.session.works.demo")  # after the first paint: it loads the database
        found: Path = works.demo_file(utc_now(), reset=arguments.reset)
        return found

    return run_window(demo)
