"""The plotter's queue: how each plot stands, and what it has drawn, worked out from the clock."""

from datetime import UTC, datetime
from functools import lru_cache
from uuid import UUID

from django.utils.timezone import now

from izett.files.pdf import ROLL_WIDTH
from izett.files.plotter_stand_in import Plot as Drawing
from izett.files.plotter_stand_in import Turn, Waiting, plotted, turns, write_plot_svg
from studio.models import Plot
from studio.plot_schemas import PlotOut, PlotState, PlotterOut
from studio.problems import not_found

#: Plot files that stay read while their pictures are looked at.
KEPT_READ = 4
#: All of a plot but its file.
STANDING = ("id", "wearer_id", "name", "seconds", "length", "width", "off_the_roll", "came", "began", "stopped")


def queue() -> list[tuple[Plot, Turn]]:
    """Return the queue in order, each plot with when it has its turn."""
    plots = list(Plot.objects.only(*STANDING))
    waiting = [
        Waiting(
            one.came.timestamp(),
            one.seconds,
            stopped=one.stopped.timestamp() if one.stopped else None,
            began=one.began.timestamp() if one.began else None,
        )
        for one in plots
    ]
    return list(zip(plots, turns(waiting), strict=True))


def keep_what_began() -> None:
    """Keep when plots began that have begun, so that they stay so whatever leaves the queue."""
    clock = now().timestamp()
    for plot, turn in queue():
        if plot.began is None and turn.began is not None and turn.began <= clock:
            plot.began = datetime.fromtimestamp(turn.began, UTC)
            plot.save(update_fields=["began"])


def plotter() -> PlotterOut:
    """Return the plotter as it stands."""
    clock = now().timestamp()
    return PlotterOut(roll=ROLL_WIDTH, queue=[_told(plot, turn, clock) for plot, turn in queue()])


def _told(plot: Plot, turn: Turn, clock: float) -> PlotOut:
    return PlotOut(
        id=plot.id,
        name=plot.name,
        state=_state(plot, turn, clock),
        seconds=plot.seconds,
        drawn=_drawn(turn, clock),
        length=plot.length,
        width=plot.width,
        off_the_roll=plot.off_the_roll,
    )


def _drawn(turn: Turn, clock: float) -> float:
    return 0.0 if turn.began is None else max(0.0, min(clock, turn.ended) - turn.began)


def _state(plot: Plot, turn: Turn, clock: float) -> PlotState:
    if turn.began is None or (plot.stopped is not None and turn.ended < turn.began + plot.seconds):
        return PlotState.STOPPED
    if clock < turn.began:
        return PlotState.WAITING
    return PlotState.PLOTTING if clock < turn.ended else PlotState.DONE


def plot_of(plot_id: UUID) -> Plot:
    """Return a plot of the queue.

    Raises:
        Refusal: there is none of this number.
    """
    found = Plot.objects.filter(id=plot_id).first()
    if found is None:
        raise not_found("plot")
    return found


def picture_of(plot_id: UUID, seconds: float) -> str:
    """Return what the plotter drew of a plot in so many seconds, and no more than it has drawn by now.

    Raises:
        Refusal: there is no such plot.
    """
    standing = {plot.id: turn for plot, turn in queue()}
    if plot_id not in standing:
        raise not_found("plot")
    return write_plot_svg(_read(plot_id), min(seconds, _drawn(standing[plot_id], now().timestamp())))


@lru_cache(maxsize=KEPT_READ)
def _read(plot_id: UUID) -> Drawing:
    return plotted(bytes(plot_of(plot_id).content))
