"""Which kit: who could stand where, what the days take from the batteries, and the set that costs the least."""
