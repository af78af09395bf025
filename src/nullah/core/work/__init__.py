"""What follows from a plan once it is worked at: the piece through a year, the order of work, what comes next."""
