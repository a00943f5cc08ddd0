"""The studio's Django application."""

from django.apps import AppConfig


class StudioConfig(AppConfig):
    """Wearers, sheets, jobs, rounds and what was done to them."""

    name = "studio"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Have the files of photos go with their rows."""
        # Models are there only now.
        from studio.storage.photos import watch  # noqa: PLC0415

        watch()
