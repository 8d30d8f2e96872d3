"""What the database keeps of a site: its document, its pages and files as rows, every edit, every edition."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.utils import timezone


class StoredSite(models.Model):
    """A site's newest state. `document` is all but what has a row of its own; of menus and pieces it has the order."""

    slug = models.SlugField(max_length=40, unique=True)
    name = models.CharField(max_length=120)
    people = models.ManyToManyField(settings.AUTH_USER_MODEL, related_name="sites")
    revision = models.PositiveIntegerField(default=0)
    document = models.JSONField()
    current_edition = models.ForeignKey("Edition", null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    found = models.JSONField(default=dict, help_text="How much was found when it was last looked at, by severity.")

    class Meta:
        ordering = ["name"]


class LookedThrough(models.Model):
    """What was found about a site when it was last looked at as a whole; `revision`: of which state that is true."""

    site = models.OneToOneField(StoredSite, on_delete=models.CASCADE, related_name="looked_through")
    revision = models.PositiveIntegerField()
    at = models.DateTimeField()
    findings = models.JSONField()


class LookingThrough(models.Model):
    """How many of a site's many pages have been read, while it is looked through; all, and the rest is laid out."""

    site = models.OneToOneField(StoredSite, on_delete=models.CASCADE, related_name="looking_through")
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField()


class StoredNode(models.Model):
    """What a site may have many of, or large ones: an edit writes no more of them than it changes. Its value as JSON,
    beside columns for what is asked for."""

    class Slot(models.TextChoices):
        PAGES = "pages"
        ASSETS = "assets"
        MENUS = "menus"
        PIECES = "pieces"

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="nodes")
    slot = models.CharField(max_length=6, choices=Slot.choices)
    node_id = models.CharField(max_length=40)
    path = models.CharField(max_length=1000)
    content = models.CharField(max_length=64, blank=True)
    document = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["site", "node_id"], name="one_row_a_node")]
        indexes = [models.Index(fields=["site", "slot", "path"])]


class Content(models.Model):
    """The bytes of pages and files, named by SHA-256. Reached only by way of a site that one may see."""

    hash = models.CharField(max_length=64, primary_key=True)
    data = models.BinaryField()
    kept_at = models.DateTimeField(default=timezone.now, help_text="The last time that somebody brought it.")


class Revision(models.Model):
    """An edit that became part of a site: what was done, and what takes it back."""

    class Kind(models.TextChoices):
        EDIT = "edit"
        UNDO = "undo"
        REDO = "redo"

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    kind = models.CharField(max_length=4, choices=Kind.choices, default=Kind.EDIT)
    edit = models.JSONField()
    inverse = models.JSONField()
    said = models.CharField(
        max_length=300, blank=True, help_text="What was done, in words; empty where nobody said it."
    )
    spent = models.BooleanField(default=False, help_text="Undone, or, for an undo: redone or overtaken by a new edit.")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["site", "number"], name="one_revision_a_number")]
        indexes = [models.Index(fields=["site", "author", "spent", "-number"])]


class Undertaking(models.Model):
    """Something that takes its time in the background: how far it is, how it ended, and what there is to say of it."""

    class State(models.TextChoices):
        WAITING = "waiting"
        WORKING = "working"
        DONE = "done"
        FAILED = "failed"

    state = models.CharField(max_length=7, choices=State.choices, default=State.WAITING)
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    message = models.TextField(blank=True)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        abstract = True


class Edition(Undertaking):
    """One published state. Its files are named by content; `manifest` names the list of them, `making` what is kept of how
    they were made."""

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="editions")
    number = models.PositiveIntegerField()
    revision = models.PositiveIntegerField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    manifest = models.CharField(max_length=64, blank=True)
    making = models.CharField(max_length=64, blank=True)
    finished_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["site", "number"], name="one_edition_a_number")]


class Work(Undertaking):
    """Something long that somebody asked for: reading what they sent, or lifting a part out of every page."""

    class Kind(models.TextChoices):
        BRING_IN = "bring in"
        LIFT_OUT = "lift out"

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="works")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    kind = models.CharField(max_length=8, choices=Kind.choices)
    name = models.CharField(max_length=200, help_text="The file's name, or the selector.")
    file = models.FileField(upload_to="arrivals/%Y/%m", blank=True)
    details = models.JSONField(default=dict)
    problems = models.JSONField(default=list)

    class Meta:
        ordering = ["-made_at"]


class _OneEach(models.Model):
    """Something that waits for one person on one site; a newer one takes its place."""

    site = models.ForeignKey(StoredSite, models.CASCADE, related_name="%(class)ss")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    name = models.CharField(max_length=200)

    class Meta:
        abstract = True
        constraints = [models.UniqueConstraint("site", "person", name="one_%(class)s_each")]


class Trial(_OneEach):
    """What somebody tries on: an edit that is not made, only shown. `about`: where it comes from, if not from a list."""

    edit = models.JSONField()
    about = models.JSONField(default=dict)


class Arrival(_OneEach):
    """A bundle from which somebody chooses what goes over into a site; without contents."""

    document = models.JSONField()


class GatePassword(models.Model):
    """One of the passwords that open a gate. `stamp`: another one ends the visits of those who came in by it."""

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="passwords")
    gate = models.CharField(max_length=40)
    label = models.CharField(max_length=80)
    hash = models.CharField(max_length=200)
    stamp = models.CharField(max_length=16)
    last_day = models.DateField(null=True, blank=True)
    uses = models.PositiveIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["made_at", "pk"]
        indexes = [models.Index(fields=["site", "gate"])]


class WrongTry(models.Model):
    """A password that did not open a gate. `sender` tells visitors apart, not people."""

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="wrong_tries")
    gate = models.CharField(max_length=40)
    sender = models.CharField(max_length=64)
    at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["site", "gate", "at"])]


class ConsentRecord(models.Model):
    """What a visitor answered to a question about consent. `number`: made up by their browser; `asked`: what was asked, in
    short; `yes`: to which categories."""

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="consents")
    number = models.CharField(max_length=24)
    asked = models.CharField(max_length=16)
    yes = models.JSONField()
    region = models.CharField(max_length=6, blank=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [models.Index(fields=["site", "-at"])]


class Message(models.Model):
    """What a visitor sent by a form: the answers as they were labelled then. `sender` tells floods apart, not
    people."""

    site = models.ForeignKey(StoredSite, on_delete=models.CASCADE, related_name="messages")
    form = models.CharField(max_length=40)
    form_name = models.CharField(max_length=120)
    page = models.CharField(max_length=1000, blank=True)
    answers = models.JSONField(help_text="Pairs of label and answer.")
    sender = models.CharField(max_length=64)
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-received_at", "-pk"]
        indexes = [models.Index(fields=["site", "-received_at"]), models.Index(fields=["sender", "received_at"])]
