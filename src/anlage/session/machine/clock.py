"""The one place that reads the time of day; everything else is handed it."""

from datetime import UTC, datetime


def utc_now() -> str:
    """Return the time of day in UTC as ISO 8601."""
    now = datetime.now(UTC)  # noqa: TID251 - here and nowhere else
    return now.strftime("%Y-%m-%dT%H:%M:%SZ")
