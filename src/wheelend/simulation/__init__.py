"""The virtual wheel end: hidden truth, a dial on it, hands that slip; and those who work it.

Everything is drawn from a generator of random numbers that is passed in: the same seed gives the same
job. No interface and no clock; practice, gauge stand-ins and `./zesty bench advice` stand on it.
"""
