"""Send a plot file to the plotter, stop it there, take it out of the queue."""

from uuid import UUID

from django.db import transaction
from django.utils.timezone import now

from izett.files.plotter_stand_in import plotted
from studio.limits import LONGEST_NAME, MOST_PLOTS, refuse_more
from studio.models import Plot, Wearer
from studio.plot_schemas import PlotState
from studio.plotting import keep_what_began, plot_of, plotter
from studio.problems import Refusal


def send_plot(content: bytes, name: str, wearer: Wearer | None = None) -> None:
    """Put a plot file at the end of the queue.

    Raises:
        UnreadableFile: the plotter cannot read it, or it draws nothing.
        Refusal: the queue is full.
    """
    drawing = plotted(content)
    _, low, _, high = drawing.bounds
    with transaction.atomic():
        keep_what_began()
        refuse_more(Plot.objects.count() + 1, MOST_PLOTS, "plots in the queue")
        Plot.objects.create(
            wearer=wearer,
            name=name[:LONGEST_NAME],
            content=content,
            came=now(),
            seconds=drawing.seconds,
            length=drawing.length,
            width=high - min(low, 0.0),
            off_the_roll=drawing.off_the_roll,
        )


def stop_plot(plot_id: UUID) -> None:
    """Stop a plot: the pen is lifted where it is, and the next one begins. One that is done stays so.

    Raises:
        Refusal: there is no such plot.
    """
    with transaction.atomic():
        keep_what_began()
        plot = plot_of(plot_id)
        if _stands(plot_id) in (PlotState.WAITING, PlotState.PLOTTING):
            plot.stopped = now()
            plot.save(update_fields=["stopped"])


def take_off(plot_id: UUID) -> None:
    """Take a plot out of the queue; one that is not there is gone already.

    Raises:
        Refusal: the pen is at it.
    """
    with transaction.atomic():
        keep_what_began()
        if _stands(plot_id) is PlotState.PLOTTING:
            raise Refusal(409, "plotting", "The pen is at this plot.", fix="Stop it first.")
        Plot.objects.filter(id=plot_id).delete()


def _stands(plot_id: UUID) -> PlotState | None:
    return next((one.state for one in plotter().queue if one.id == plot_id), None)
