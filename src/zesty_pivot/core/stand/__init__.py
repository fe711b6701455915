"""The pattern sewn and worn: a form made from measurements, the cloth settled on it, what stands off, and its picture.

Millimetres, newtons; x to the wearer's left, y to the front, z up from the waist.
"""
