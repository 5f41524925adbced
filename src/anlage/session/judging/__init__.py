"""The one way from a document to facts and stated sets, and from those to verdicts in words."""
