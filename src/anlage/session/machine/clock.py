"""The one place that reads the time of day; everything else is handed it."""

import os
from datetime import UTC, datetime


def utc_now() -> str:
    """Return the time of day in UTC as ISO 8601."""
    now = datetime.now(UTC)  # noqa: TID251 - here and nowhere else
    return now.strftime("%Y-%m-%dT%H:%M:%SZ")


def made_at() -> str:
    """Return the time that outputs are dated by: SOURCE_DATE_EPOCH [s] where it is set, so that they are repeated."""
    given = os.environ.get("SOURCE_DATE_EPOCH", "").strip()
    if not given.isdigit():
        return utc_now()
    return datetime.fromtimestamp(int(given), UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
