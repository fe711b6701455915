"""Sizes: the chart, the style in all of them, over each other, and how they are graded."""
