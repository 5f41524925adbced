"""`anlage screenshots`: a picture of every place of the demo."""

import argparse
from pathlib import Path

from anlage.cli.parsing import add_force, add_json
from anlage.core.errors import FormatError
from anlage.session.keyed.answer import Answer
from anlage.ui.desk.screenshots import take_screenshots


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("folder", metavar="DIR", help="where the pictures go; made when it is not there")
    add_force(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Take the pictures and return their names.

    Raises
    ------
    FormatError : the folder cannot be written
    """
    folder = Path(arguments.folder)
    for old in sorted(folder.glob("*.png")) if not arguments.force else ():
        raise FormatError("it exists already", where=old.name, mend="choose another folder, or say --force")
    try:
        taken = take_screenshots(folder)
    except OSError as fault:
        mend = "choose a folder you can write"
        raise FormatError("it cannot be written", where=arguments.folder, mend=mend) from fault
    names = [str(path) for path in taken]
    return Answer({"pictures": names}, [("picture", name) for name in names], ())
