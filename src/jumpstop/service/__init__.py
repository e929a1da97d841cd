"""What can be asked of a job, each question once: for the page, the command line and paper alike.

Each brings the job's documents together (`core.scene.job.planned`) with a shelf, and asks the plan.
"""

from .job import coverage, day, solve_for_day, solve_job
from .kit import KitChoice, kit, kits_by_outlay

__all__ = ["KitChoice", "coverage", "day", "kit", "kits_by_outlay", "solve_for_day", "solve_job"]
