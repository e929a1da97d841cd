"""Documents of version 1 are still read."""

from jumpstop.core.scene.setup import Setup
from jumpstop.core.scene.versions import setup_of_any_version, unit_of_any_version
from versions import OLD, OLD_UNIT


def test_a_setup_of_version_one_takes_the_new_names_and_loses_nothing() -> None:
    ids = {"bodies": {"Old body": "b1"}, "filters": {"ND 6": "f1"}, "modifiers": {"Octa": "m1"}}
    new = setup_of_any_version(OLD, ids)
    setup = Setup.model_validate(new)
    assert (setup.ambient.subject, setup.method, setup.power_supply, setup.frames) == ("back", "nd", "lithium", 240)
    assert setup.aim.lens is not None
    assert setup.aim.lens.background_m == 60
    assert (setup.body.id, setup.filters[0].id, setup.lights[0].modifier.id) == ("b1", "f1", "m1")  # type: ignore[union-attr]
    assert setup.name == "From before"
    assert setup_of_any_version(new) is new
    assert Setup.model_validate(setup_of_any_version(OLD)).body.id is None
    assert Setup.model_validate(setup_of_any_version({k: v for k, v in OLD.items() if k != "version"})).method == "nd"
    assert setup_of_any_version({"name": "x"}) == {"name": "x"}
    assert setup_of_any_version([1]) == [1]
    assert OLD["version"] == 1  # the old document is left as it is
    assert set(unit_of_any_version(OLD_UNIT)) == {"name", "watt_seconds", "power_supplies", "flash_duration"}
    both = unit_of_any_version({"sources": [1], "power_supplies": [2]})
    assert both == {"sources": [1], "power_supplies": [2]}  # which one is meant is not guessed
