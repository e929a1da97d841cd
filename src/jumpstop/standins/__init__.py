"""Made-up meter, camera, flash and sky, for practice and for days that play themselves; they import the core only.

What they hide is drawn from the doubt that the core has of everything (see `truth`); what they then show is worked out
by the core itself, from figures without doubt.
"""
