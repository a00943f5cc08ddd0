"""The numeric tolerances of the core, each with its unit and its reason.

Three kinds are never mixed: numeric ones (here), output ones (flattening and rounding, in the writers) and craft
ones (a check's parameters). All are absolute.
"""

#: cm. Two computed points closer than this are the same point: far under a pencil line, far over float noise.
SAME_POINT = 1e-7

#: cm. A solved length may be off by this: a thousandth of the finest mark on a tape.
SOLVED_LENGTH = 1e-6

#: Sine of an angle. Directions closer than this are parallel.
PARALLEL = 1e-9

#: cm. How far a flattened curve may lie from the curve where shapes are only compared or tested for crossing.
FLATNESS = 0.005

#: cm. Coarser still, where only the crossing of lines a hand could see is asked about, after every step.
CROSSING_FLATNESS = 0.03

#: cm. Segments of a flattened outline shorter than this are dropped before shapes are tested for crossing.
SHORTEST_CHORD = 1e-6
