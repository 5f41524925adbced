"""The window binding itself: PySide6 6.12.0 lost a reference to None at every void call and died after about 5,000."""

import sys

from PySide6.QtCore import QObject


def test_a_void_call_keeps_the_references_to_none():
    target = QObject()
    before = sys.getrefcount(None)
    for n in range(500):
        target.setObjectName(str(n))
    assert abs(sys.getrefcount(None) - before) <= 50
