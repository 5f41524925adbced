"""The one place that reconciles what a document states twice: two statements that disagree prove nothing."""
