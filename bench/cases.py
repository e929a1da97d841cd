"""The tests that have many generated cases, of which `make test` tries a few; nothing of the product is loaded here."""

LONG = {
    "SETUPS": ("400", "core/test_comes_out.py"),
    "FINDINGS": ("300", "core/test_findings.py"),
    "KITS": ("200", "core/test_kit_fed.py"),
    "JOBS": ("300", "api/test_one_answer.py"),
    "WAYS": ("6000", "api/test_contract.py"),
    "SHEETS": ("20000", "formats/test_spec.py"),
    "SEEDS": ("6", "standins/test_bench.py"),
}
"""How many generated cases the tests try that run a few of them in `make test`, and which those are."""
