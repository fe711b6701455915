"""Figures kept of whole recipes: what a change must not move unseen."""
