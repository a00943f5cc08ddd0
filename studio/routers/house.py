"""The house rules: what the maker sets for all new jobs."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from studio.actions.set_house_rule import drop_house_rule, set_house_rule
from studio.models import HouseRule
from studio.schemas import HouseRuleIn, HouseRuleOut
from studio.state import house_rule_state

router = Router(tags=["house"])


@router.get("/house-rules", response=list[HouseRuleOut])
def house_rules(request: HttpRequest) -> list[HouseRuleOut]:
    """List the house rules."""
    return [house_rule_state(rule) for rule in HouseRule.objects.all()]


@router.put("/house-rules/{symbol}", response=HouseRuleOut)
def put_house_rule(request: HttpRequest, symbol: str, data: HouseRuleIn) -> HouseRuleOut:
    """Set a house rule; it counts for jobs that are opened from now on."""
    return house_rule_state(set_house_rule(symbol, data))


@router.delete("/house-rules/{symbol}", response={204: None})
def delete_house_rule(request: HttpRequest, symbol: str) -> HttpResponse:
    """Drop a house rule; jobs that are open keep it."""
    drop_house_rule(symbol)
    return HttpResponse(status=204)
