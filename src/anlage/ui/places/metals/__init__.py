"""The Metals place: strength, hardening, ferrite and dilution of what is joined."""
