"""Set or drop a house rule: it counts for jobs that are opened from then on."""

from izett.catalogue import catalogue
from izett.errors import UnknownName
from studio.models import HouseRule
from studio.problems import not_found
from studio.schemas import HouseRuleIn


def set_house_rule(symbol: str, data: HouseRuleIn) -> HouseRule:
    """Set a house rule.

    Raises:
        UnknownName: no block has such a rule or allowance.
        ValueOutOfRange: the value lies outside what a draft can have.
    """
    entries = list(catalogue().entries(symbol))
    if not entries:
        raise UnknownName(
            f"No block has a rule or allowance “{symbol}”.",
            fix="Set it from the sums of a job, where all are listed.",
            where=(symbol,),
        )
    for entry in entries:
        entry.checked(data.value)
    rule, _ = HouseRule.objects.update_or_create(
        symbol=symbol, defaults={"value": data.value, "reason": data.reason.strip()}
    )
    return rule


def drop_house_rule(symbol: str) -> None:
    """Drop a house rule.

    Raises:
        Refusal: there is none of that name.
    """
    if not HouseRule.objects.filter(symbol=symbol).delete()[0]:
        raise not_found("house rule")
