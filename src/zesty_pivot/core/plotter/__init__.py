"""Plotters: what they are sent, how it is sent, and one that is simulated."""
