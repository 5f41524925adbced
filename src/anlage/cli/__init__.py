"""The command line: a face of the core in its own right, with names, keys and units that stay."""
