"""The boards on hand, what is wrong with them, and the sizes yards name."""
