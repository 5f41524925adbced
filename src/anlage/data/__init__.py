"""The tables, fonts and looks that ship with Anlage: this layer finds the files, `core` reads their text."""
