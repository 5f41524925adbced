"""Do these go together? Strength, hardening, ferrite and dilution of an open procedure's metals."""
