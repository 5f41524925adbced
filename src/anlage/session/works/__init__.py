"""The open works file, documents found in one, how a document stands, the register, the demo."""
