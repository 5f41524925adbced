"""The person's machine: settings, crash logs and the clock; nothing here knows a document."""
