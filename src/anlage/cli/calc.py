"""`anlage calc`: one quantity worked out."""

import argparse
import textwrap

from anlage.cli.parsing import Parser, add_words
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.calculations import calculate, calculation, calculation_names


def add_arguments(parser: Parser) -> None:
    """Say what the command takes."""
    parser.more = _keys
    parser.add_argument("name", metavar="NAME", help=", ".join(calculation_names()))
    add_words(parser)


def _keys() -> str:
    lines = (f"{name}: {' '.join(calculation(name).KEYS)}" for name in calculation_names())
    return "\n".join(textwrap.fill(line, 100, subsequent_indent="  ") for line in lines)


def answer(arguments: argparse.Namespace) -> Answer:
    """Answer by the calculation that is named."""
    return calculate(arguments.name, arguments.words)
