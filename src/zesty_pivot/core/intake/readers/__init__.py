"""Readers of the files that blocks come in, one a module; each has a READER."""
