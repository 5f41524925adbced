"""What the demo has, in the order in which lists show it; tests that count it need no change when it grows."""

from anlage.data.files import FOLDER
from anlage.session.kinds import KINDS


def _of(letter):
    return [path.stem for path in sorted((FOLDER / "demo").glob(f"OST-{letter}-*.json"))]


PROCEDURES, RECORDS, MACHINES = (_of(kind.letter) for kind in KINDS)
NUMBERS = [*PROCEDURES, *RECORDS, *MACHINES]


def following(numbers):
    """The number that comes after the last of some."""
    start, _, last = numbers[-1].rpartition("-")
    return f"{start}-{int(last) + 1:02d}"
