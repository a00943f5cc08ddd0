"""What the studio keeps: wearers with their sheets, and jobs as append-only chains of revisions.

Nothing that was recorded is overwritten: a new sheet stands beside the old, a revision follows its parent, a closed
round stays as it was. Geometry is a result and is stored only where it was cut in cloth.
"""

from uuid import uuid4

from django.db import models


class Wearer(models.Model):
    """A person for whom things are made, or a standard size that stands for one.

    Deleting a wearer deletes all that belongs to them, for good. `size` names chart, size and height of a standard size
    (`en_13402_3_women:92@168`); it is empty for a person.
    """

    id = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    name = models.CharField(max_length=120)
    note = models.TextField(blank=True)
    size = models.CharField(max_length=200, blank=True)
    created = models.DateTimeField(auto_now_add=True)


class MeasureSheet(models.Model):
    """One taking of measures. Never changed: a correction is a new sheet."""

    wearer = models.ForeignKey(Wearer, on_delete=models.CASCADE, related_name="sheets")
    number = models.PositiveIntegerField()
    taken_on = models.DateField()
    taken_by = models.CharField(max_length=20, default="helper")
    worn = models.CharField(max_length=200, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["wearer", "number"], name="sheet_number")]
        ordering = ["number"]


class SheetUnderWay(models.Model):
    """A sheet that is being taken and not kept yet, so that it can be gone on with after days, on any page."""

    wearer = models.OneToOneField(Wearer, on_delete=models.CASCADE, related_name="under_way")
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    saved = models.DateTimeField(auto_now=True)


class SizeChart(models.Model):
    """A maker's own size chart: measures as typed by size name, `{size: {symbol: {text, unit}}}`."""

    id = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    title = models.CharField(max_length=120)
    source = models.CharField(max_length=200, blank=True)
    sizes = models.JSONField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["title"]


class Reading(models.Model):
    """A measure as it was typed, with its unit; `again` holds further readings, `{text, unit}` each.

    `cm` is what counts: the median. `symbol` carries the side where left and right were taken apart: `arm_length.left`.
    """

    sheet = models.ForeignKey(MeasureSheet, on_delete=models.CASCADE, related_name="readings")
    symbol = models.CharField(max_length=64)
    text = models.CharField(max_length=64)
    unit = models.CharField(max_length=4)
    again = models.JSONField(default=list)
    cm = models.FloatField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["sheet", "symbol"], name="one_reading_a_measure")]
        ordering = ["id"]


class HouseRule(models.Model):
    """A rule or allowance that the maker sets for all new jobs, in the symbol's unit. Jobs that are open keep theirs."""

    symbol = models.CharField(max_length=64, unique=True)
    value = models.FloatField()
    reason = models.TextField()
    since = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["symbol"]


class Job(models.Model):
    """A garment for a wearer. `version` counts every change to the job or its rounds, for locking.

    `look_again` is a note to come back to, from a day on; `on_form` a draping session as it is prepared
    (`studio/form_schemas.py`), `cut_table` its cloths, sums and lay plans (`studio/cutting_schemas.py`).
    """

    id = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    wearer = models.ForeignKey(Wearer, on_delete=models.CASCADE, related_name="jobs")
    sheet = models.ForeignKey(MeasureSheet, on_delete=models.RESTRICT, related_name="jobs")
    garment = models.CharField(max_length=120)
    due = models.DateField(null=True, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    version = models.PositiveIntegerField(default=1)
    head = models.ForeignKey("Revision", null=True, on_delete=models.SET_NULL, related_name="+")
    look_again = models.TextField(blank=True, default="")
    look_again_on = models.DateField(null=True, blank=True)
    on_form = models.JSONField(default=dict, blank=True)
    cut_table = models.JSONField(default=dict, blank=True)


class Revision(models.Model):
    """One state of a job's recipe: school, overrides and steps, with the sheet it is for. Never changed.

    `standing` is what came of it when it was last worked out, for the bench (`studio/standing.py`).
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    parent = models.ForeignKey("self", null=True, on_delete=models.CASCADE, related_name="children")
    sheet = models.ForeignKey(MeasureSheet, on_delete=models.RESTRICT, related_name="+")
    document = models.JSONField()
    standing = models.JSONField(null=True)
    why = models.TextField(blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="revision_number")]
        ordering = ["number"]


class Round(models.Model):
    """A muslin: cut from a revision, judged, answered, closed. The as-cut geometry is what counts afterwards.

    `prepared` are the entries of the checklist that were seen to, `watched` the movements that were made; pins are counted
    in and out.
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="rounds")
    number = models.PositiveIntegerField()
    opened = models.DateTimeField(auto_now_add=True)
    closed = models.DateTimeField(null=True, blank=True)
    cloth = models.CharField(max_length=120, blank=True)
    worn = models.CharField(max_length=200, blank=True)
    note = models.TextField(blank=True)
    cut_from = models.ForeignKey(Revision, on_delete=models.RESTRICT, related_name="+")
    closed_at = models.ForeignKey(Revision, null=True, on_delete=models.RESTRICT, related_name="+")
    as_cut = models.JSONField()
    core_version = models.CharField(max_length=20)
    prepared = models.JSONField(default=list)
    watched = models.JSONField(default=list)
    pins_in = models.PositiveIntegerField(null=True, blank=True)
    pins_out = models.PositiveIntegerField(null=True, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="round_number")]
        ordering = ["number"]


class Finding(models.Model):
    """What a muslin showed. Amounts are in cm as typed; `taken` says whether they were pinched, `counted` over what.

    `piece` and `line` say what was pointed at on the table, `marked` the new marks of that line (`fitting.marked.Marked`),
    `normal` why it is left as it is for this cut. `steps` are those that its remedy added, `amended` what it changed of steps
    that were there: name, parameters before and after.
    """

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="findings")
    uid = models.CharField(max_length=64)
    kind = models.CharField(max_length=64)
    side = models.CharField(max_length=8, default="both")
    movement = models.CharField(max_length=40, blank=True)
    words = models.TextField(blank=True)
    given = models.JSONField(default=dict)
    taken = models.CharField(max_length=8, default="whole")
    counted = models.CharField(max_length=16, blank=True, default="")
    piece = models.CharField(max_length=200, blank=True, default="")
    line = models.CharField(max_length=200, blank=True, default="")
    marked = models.JSONField(null=True, blank=True)
    normal = models.TextField(blank=True, default="")
    remedy = models.CharField(max_length=64, blank=True)
    steps = models.JSONField(default=list)
    amended = models.JSONField(default=list)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["round", "uid"], name="finding_uid")]
        ordering = ["id"]


class Photo(models.Model):
    """A picture of a finding, or one that lies under a traced panel of a job.

    The file itself lies beside the database, under the photo's name (`studio/storage/photos.py`). `lies` says of a panel's
    picture which panel it is of and how it lies there (`trace_schemas.Lies`).
    """

    uid = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="photos", null=True)
    job = models.ForeignKey("Job", on_delete=models.CASCADE, related_name="pictures", null=True)
    lies = models.JSONField(default=dict, blank=True)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    size = models.PositiveIntegerField()
    taken = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["taken"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(finding__isnull=True) ^ models.Q(job__isnull=True), name="of_a_finding_or_of_a_job"
            )
        ]


class Answer(models.Model):
    """What a later muslin showed of an earlier finding."""

    finding = models.ForeignKey(Finding, on_delete=models.CASCADE, related_name="answers")
    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="answers")
    outcome = models.CharField(max_length=20)
    note = models.TextField(blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["finding", "round"], name="one_answer_a_round")]
        ordering = ["id"]


class Spell(models.Model):
    """Time spent on a job, in minutes; fewer than none takes off, None while the clock runs.

    `round` is the number of the muslin that was on the table then.
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="spells")
    round = models.PositiveIntegerField(null=True, blank=True)
    began = models.DateTimeField()
    minutes = models.IntegerField(null=True, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["job"], condition=models.Q(minutes=None), name="one_clock_a_job")
        ]
        ordering = ["began", "id"]


class KeptFit(models.Model):
    """A fit step that proved right on a wearer, kept with her for her other garments.

    `step` is the step as a recipe has it; `story` says where it comes from; `proven_on` is the number of the sheet that it
    proved right with: on a newer one it is asked again.
    """

    wearer = models.ForeignKey(Wearer, on_delete=models.CASCADE, related_name="kept_fits")
    uid = models.CharField(max_length=64)
    step = models.JSONField()
    story = models.TextField()
    proven_on = models.PositiveIntegerField()
    kept = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["wearer", "uid"], name="one_kept_fit")]
        ordering = ["id"]


class LogEntry(models.Model):
    """One line of a job's story."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="log")
    at = models.DateTimeField(auto_now_add=True)
    deed = models.CharField(max_length=40)
    text = models.TextField()

    class Meta:
        ordering = ["id"]


class Work(models.Model):
    """Something that takes long: what was asked, how far it has come, and what came of it.

    `place` says what it is for: a new question there stops an older one. `run` is the run of the server that began it.
    """

    WAITING, RUNNING, DONE, FAILED, STOPPED = "waiting", "running", "done", "failed", "stopped"
    UNDER_WAY = (WAITING, RUNNING)

    uid = models.CharField(primary_key=True, max_length=64)
    kind = models.CharField(max_length=40)
    place = models.CharField(max_length=100)
    wearer = models.ForeignKey(Wearer, null=True, on_delete=models.CASCADE, related_name="work")
    question = models.JSONField()
    state = models.CharField(max_length=10, default=WAITING)
    done = models.PositiveIntegerField(default=0)
    of = models.PositiveIntegerField(default=0)
    result = models.JSONField(null=True)
    problem = models.JSONField(null=True)
    run = models.CharField(max_length=32)
    core_version = models.CharField(max_length=20)
    created = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created"]


class Cloth(models.Model):
    """A cloth on the shelf that all jobs share; a job that takes it keeps it as it was then."""

    id = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    document = models.JSONField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]


class Plot(models.Model):
    """A plot file in the plotter's queue, as it came; `began` and `ended` are kept once they are past."""

    id = models.UUIDField(primary_key=True, default=uuid4, editable=False)
    wearer = models.ForeignKey(Wearer, null=True, on_delete=models.CASCADE, related_name="plots")
    name = models.CharField(max_length=120)
    content = models.BinaryField()
    seconds = models.FloatField()
    length = models.FloatField()
    width = models.FloatField()
    off_the_roll = models.FloatField(default=0.0)
    came = models.DateTimeField()
    began = models.DateTimeField(null=True)
    stopped = models.DateTimeField(null=True)

    class Meta:
        ordering = ["came", "id"]


class Backup(models.Model):
    """A backup that was made: when, and under which name; the file itself lies wherever it was put."""

    made = models.DateTimeField(auto_now_add=True)
    name = models.CharField(max_length=200)

    class Meta:
        ordering = ["-made"]
