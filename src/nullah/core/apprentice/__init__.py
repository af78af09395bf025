"""The apprentice: carries operations out on blanks, with exactly the figures they hold."""
