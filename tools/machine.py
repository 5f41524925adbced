"""Say in one line what this machine lacks, and the package that brings it, before a build or a run starts.

Runs on the system's own Python, before any environment exists: the standard library only, in the syntax of old Pythons.
"""

import ctypes
import importlib.util
import sys

OFFSCREEN = {
    "libEGL.so.1": "libegl1",
    "libGL.so.1": "libgl1",
    "libfontconfig.so.1": "libfontconfig1",
    "libfreetype.so.6": "libfreetype6",
    "libglib-2.0.so.0": "libglib2.0-0",
    "libxkbcommon.so.0": "libxkbcommon0",
    "libX11.so.6": "libx11-6",
}
SCREEN = {
    "libxcb-cursor.so.0": "libxcb-cursor0",
    "libxcb-icccm.so.4": "libxcb-icccm4",
    "libxcb-keysyms.so.1": "libxcb-keysyms1",
    "libxkbcommon-x11.so.0": "libxkbcommon-x11-0",
}


def missing_libraries(libraries: "dict[str, str]") -> "list[str]":
    """Return the Debian packages whose shared library does not load."""
    packages = []
    for library, package in libraries.items():
        try:
            ctypes.CDLL(library)
        except OSError:
            packages.append(package)
    return packages


def missing(purpose: str) -> "tuple[str, list[str]]":
    """Return what is wrong, in words, and the packages that mend it, for `build`, `offscreen` or `screen`."""
    if purpose == "build":
        if sys.version_info < (3, 11):  # noqa: UP036 - this file alone runs on whatever Python the machine has
            return "Anlage needs Python 3.11 or newer, this is " + sys.version.split()[0], [
                "python3.11",
                "python3.11-venv",
            ]
        if importlib.util.find_spec("ensurepip") is None:
            return "this Python cannot make virtual environments", ["python3-venv"]
        return "", []
    libraries = OFFSCREEN if purpose == "offscreen" else {**OFFSCREEN, **SCREEN}
    return "system libraries of the window are missing", missing_libraries(libraries)


def main() -> int:
    """Print the packages to install and return 1, or return 0 in silence."""
    what, packages = missing(sys.argv[1])
    if packages:
        print("machine: {}; install them with: apt-get install {}".format(what, " ".join(packages)), file=sys.stderr)
    return 1 if packages else 0


if __name__ == "__main__":
    sys.exit(main())
