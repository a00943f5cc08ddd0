"""The studio's Django application."""

from django.apps import AppConfig


class StudioConfig(AppConfig):
    """Wearers, sheets, jobs, rounds and what was done to them."""

    name = "studio"
    default_auto_field = "django.db.models.BigAutoField"
