"""`anlage schema`: the JSON Schema of a kind of document."""

import argparse
import json

from anlage.cli.parsing import add_json
from anlage.session.keyed.answer import Answer
from anlage.session.kinds import KINDS, kind_named


def schema_answer(word: str) -> Answer:
    """Return the JSON Schema of a kind of document; it is printed as it is, with or without `--json`.

    Raises
    ------
    UnknownNameError : there is no such kind
    """
    schema = kind_named(word, where="schema").core.schema()
    return Answer(schema, [("", line) for line in json.dumps(schema, indent=2, ensure_ascii=False).splitlines()], ())


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("kind", metavar="KIND", help=" or ".join(kind.id for kind in KINDS))
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Print a JSON Schema."""
    return schema_answer(arguments.kind)
