"""Galleries: what a step can make, pictured on the user's own pattern; one module a kind of step, with a registry."""
