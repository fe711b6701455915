"""Handles of steps on the table, a module for each kind of step."""
