"""Units of length: metres inside, feet only at the edges."""

FEET_PER_METRE = 3.2808  # 1 / 0.3048, international foot of 1959
