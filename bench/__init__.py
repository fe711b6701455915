"""Performance as ratios measured in one run: `make bench`."""
