"""`anlage calc`: one quantity worked out."""

import argparse
import sys
import textwrap

from anlage.cli.parsing import Parser, add_words
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.calculations import calculate, calculation, calculation_names

STOPPED = 2  # interrupted, as bad input: no answer


def add_arguments(parser: Parser) -> None:
    """Say what the command takes."""
    parser.more = _keys
    parser.add_argument("name", metavar="NAME", help=", ".join(calculation_names()))
    add_words(parser)


def _keys() -> str:
    lines = (f"{name}: {' '.join(calculation(name).KEYS)}" for name in calculation_names())
    return "\n".join(textwrap.fill(line, 100, subsequent_indent="  ") for line in lines)


def answer(arguments: argparse.Namespace) -> Answer | int:
    """Answer by the calculation that is named; long work says on a terminal how far it is."""
    shown = sys.stderr.isatty()
    try:
        return calculate(arguments.name, arguments.words, _tell if shown else lambda _line: None)
    except KeyboardInterrupt:
        return STOPPED
    finally:
        if shown:
            print("\r\033[K", end="", file=sys.stderr, flush=True)


def _tell(line: str) -> None:
    print(f"\r\033[K{line}", end="", file=sys.stderr, flush=True)
