"""The computation: no interface code below this folder.

Units inside are millimetres and radians, float64; x runs to the right, y down. A positive
angle turns clockwise on the paper (from +x towards +y).
"""
