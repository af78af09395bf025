"""Instruments behind one small interface each, and simulated ones to try everything without wood."""
