"""Sizes: charts of them, blocks graded by rules, a style worked out for all of them and for any number of people."""
