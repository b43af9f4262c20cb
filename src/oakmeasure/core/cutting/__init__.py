"""Plans that cut parts out of stock, each with a bound."""
