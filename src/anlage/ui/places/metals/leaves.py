"""The leaves that have their field at Metals."""

LEAVES = ("metals/one/certificate", "metals/other/certificate", "metals/dilution")
