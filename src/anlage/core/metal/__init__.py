"""What metals are and what becomes of them: compositions, equivalents, ferrite, transformation, strength, dilution."""
