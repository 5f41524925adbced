"""Which coupons to weld: joints to cover, coupons that might, and the fewest or cheapest that do."""
