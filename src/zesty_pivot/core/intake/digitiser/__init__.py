"""Digitising tables: points and buttons from a serial line become outlines with marks."""
