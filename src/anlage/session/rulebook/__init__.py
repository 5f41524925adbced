"""The rulebook: every rule of a code in words with its worked examples, and the marks that people set on it."""
