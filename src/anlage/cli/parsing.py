"""How every command reads its words: a parser whose refusals are the product's own, and the words many take."""

import argparse
from collections.abc import Callable
from functools import partial
from typing import NoReturn

from anlage.core.errors import InputError

DOCUMENT = "a JSON file, or NAME.anlage#NUMBER[@REVISION]"
CODE = "the code, with edition if not the newest: asme-ix:2019"
DEMANDS = "units=si|us, weld=groove|fillet|partial|repair, impact=yes|no"

# A stated width: to ask the terminal for its own costs every command more time than reading its words.
HELP = partial(argparse.RawDescriptionHelpFormatter, width=78)


class Parser(argparse.ArgumentParser):
    """A parser whose refusals are one line: what, where, how to mend; `more` gives what its help ends with."""

    more: Callable[[], str] | None = None

    def format_help(self) -> str:
        """Return the help; what it ends with is looked up for that alone."""
        if self.more is not None:
            self.epilog = self.more()
        return super().format_help()

    def error(self, message: str) -> NoReturn:
        """Refuse what was typed.

        Raises
        ------
        InputError : always
        """
        raise InputError(message, where=self.prog, mend=f"see {self.prog} --help")


def add_words(
    parser: argparse.ArgumentParser, words: str = "key=value, every value with its unit: speed=250mm/min, volts=23..26"
) -> None:
    """Let a command take `key=value` words and answer as JSON."""
    parser.add_argument("words", metavar="KEY=VALUE", nargs="*", help=words)
    add_json(parser)


def add_force(parser: argparse.ArgumentParser) -> None:
    """Let a command write over a file that is there."""
    parser.add_argument("--force", action="store_true", help="write over a file that is there; never over a works file")


def add_json(parser: argparse.ArgumentParser) -> None:
    """Let a command answer as JSON."""
    parser.add_argument("--json", action="store_true", dest="as_json", help="print one JSON object")


def add_codes(parser: argparse.ArgumentParser, *, needed: bool) -> None:
    """Let a command take a code, or several: one answer each."""
    parser.add_argument(
        "--code",
        metavar="CODE",
        action="append",
        default=[],
        required=needed,
        help=f"{CODE}; may come more than once",
    )


def add_works(parser: argparse.ArgumentParser, of: str = "whose metals and rulebook count; else its own") -> None:
    """Let a command judge by the rules as a works file has them."""
    parser.add_argument("--works", metavar="FILE.anlage", default="", help=of)


def add_records(parser: argparse.ArgumentParser) -> None:
    """Let a command take the records that a procedure is judged by."""
    parser.add_argument(
        "--pqr", metavar="FILE", nargs="+", action="extend", default=[], help="records; else those of its works file"
    )
