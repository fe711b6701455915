"""The few tolerances of the geometry, each a distance in mm (or an angle) with its reason."""

# Two ends closer than this are one place. Block files keep six decimals, so two roundings of one
# point lie up to 1.5e-6 mm apart; nothing a cutter can mean is smaller than this.
JOIN_TOL = 1e-5

# Chord error of a polyline where one is needed (drawing, offset, area of a region): a tenth of
# the thinnest ink line.
FLATNESS = 0.01

# Arc lengths are integrated until two estimates agree this closely, per segment.
LENGTH_TOL = 1e-10

# Inner points this close (mm) to the thirds of the chord make a cubic a plain line: the noise of the arithmetic.
STRAIGHT_NOISE = 1e-9

# Directions closer than this (radians) are one direction: the noise of float64 at pattern size.
ANGLE_NOISE = 1e-9
