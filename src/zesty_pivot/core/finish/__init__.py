"""Finishing: set-back, caps, allowances, notches, drill holes, grain, labels, cut orders; pieces on a sheet."""
