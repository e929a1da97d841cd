"""What can be asked of a job, each question once: for the page, the command line and paper alike.

Each brings the job's documents together (`core.scene.job.planned`) with a shelf, and asks the plan.
"""

from .cards import CardPlan, cards
from .change import cures_of, find_a_stop
from .job import coverage, day, shot_setup, shot_setups, solve_job, stands_as, with_help
from .kit import KitChoice, kit, kits_by_outlay
from .need import need, request
from .pack import PackList, pack

__all__ = [
    "CardPlan",
    "KitChoice",
    "PackList",
    "cards",
    "coverage",
    "cures_of",
    "day",
    "find_a_stop",
    "kit",
    "kits_by_outlay",
    "need",
    "pack",
    "request",
    "shot_setup",
    "shot_setups",
    "solve_job",
    "stands_as",
    "with_help",
]
