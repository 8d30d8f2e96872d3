"""Which sites exist for somebody? Those they belong to; every other is answered as if it were not there."""

from __future__ import annotations

from django.contrib.auth.base_user import AbstractBaseUser
from django.db.models import QuerySet
from django.http import Http404

from .models import StoredSite


def sites_of(user: AbstractBaseUser) -> QuerySet[StoredSite]:
    return StoredSite.objects.filter(people=user.pk)


def site_of(user: AbstractBaseUser, slug: str) -> StoredSite:
    try:
        return sites_of(user).select_related("current_edition").defer("document").get(slug=slug)
    except StoredSite.DoesNotExist:
        raise Http404 from None
