"""Izett's core: the knowledge of the trade, without any interface.

Lengths are centimetres as floats, angles are radians, the frame of a piece is x to the side and y up.
"""

__version__ = "0.1.0"
