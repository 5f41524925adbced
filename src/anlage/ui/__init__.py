"""The window: Qt widgets over documents; what is computed comes from the layers below."""

import builtins

_importing = builtins.__import__

import PySide6.QtCore  # noqa: E402, F401 - loaded here, before anything of the window

# Qt for Python puts an import of its own in place, which reads the source of every module loaded after it in case that
# asks for `__feature__`. Nothing here does, and it would be hundreds of files on the way to the first document.
builtins.__import__ = _importing
