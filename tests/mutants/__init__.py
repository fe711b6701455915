"""Mutations of the core, made one at a time and run against the tests: what no test notices, no test holds."""
