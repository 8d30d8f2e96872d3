"""How the web processes and workers are set up. What differs between machines comes from the environment
(docs/deploy.md)."""

from __future__ import annotations

import os
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent.parent
RUN_FOLDER = Path(os.environ.get("RIM_RUN_FOLDER", ROOT / ".run"))

SECRET_KEY = os.environ.get("RIM_SECRET", "")
DEBUG = os.environ.get("RIM_DEBUG") == "1"

STUDIO_HOST = os.environ.get("RIM_STUDIO_HOST", "localhost")
SITES_DOMAIN = os.environ.get("RIM_SITES_DOMAIN", "localhost")
"""Each published site answers at `<slug>.<SITES_DOMAIN>`. Never the studio's own host, nor a parent domain it sets
cookies for."""
ADDRESS_SCHEME = os.environ.get("RIM_SCHEME", "http")
REGION_HEADER = os.environ.get("RIM_REGION_HEADER", "")
"""Name of the header in which the deployment's edge says a visitor's region (ISO 3166). Empty: a simulated look-up."""
MEMBER_HEADER = os.environ.get("RIM_MEMBER_HEADER", "")
"""Name of the header in which the deployment's edge says of which groups a visitor is a member, with commas between.
Empty: a simulated sign-in."""
TRANSLATOR = os.environ.get("RIM_TRANSLATOR", "upper_rim.core.languages.translator.StandInTranslator")
"""Path of the class that drafts translations (`Translator`, in the same module). A stand-in ships."""

ALLOWED_HOSTS = [STUDIO_HOST, f".{SITES_DOMAIN}"]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "django_htmx",
    "procrastinate.contrib.django",
    "upper_rim.web.accounts",
    "upper_rim.web.sites",
    "upper_rim.web.jobs",
    "upper_rim.web.studio",
]

MIDDLEWARE = [
    "upper_rim.web.live.hosts.SiteHosts",
    "django.middleware.security.SecurityMiddleware",
    "upper_rim.web.studio.security.ContentSecurityPolicy",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "upper_rim.web.accounts.bodies.OnlyMembersSend",
    "upper_rim.web.accounts.bodies.NoNul",
    "django.contrib.auth.middleware.LoginRequiredMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "upper_rim.web.urls"
WSGI_APPLICATION = "upper_rim.web.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "upper_rim" / "web"],
        "OPTIONS": {
            "loaders": [("django.template.loaders.cached.Loader", ["upper_rim.web.templates.Loader"])],
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ],
            "builtins": ["upper_rim.web.studio.cycle.regions", "upper_rim.web.studio.controls.options"],
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("RIM_DB_NAME", "upper_rim"),
        "USER": os.environ.get("RIM_DB_USER", "upper_rim"),
        "PASSWORD": os.environ.get("RIM_DB_PASSWORD", ""),
        "HOST": os.environ.get("RIM_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("RIM_DB_PORT", "5432"),
        "CONN_MAX_AGE": 300,
        "CONN_HEALTH_CHECKS": True,
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

STORAGES = {
    "default": {
        "BACKEND": "django.core.files.storage.FileSystemStorage",
        "OPTIONS": {"location": RUN_FOLDER / "uploads"},
    },
    "editions": {
        "BACKEND": "upper_rim.web.sites.storage.ContentStorage",
        "OPTIONS": {"location": RUN_FOLDER / "editions"},
    },
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
STATIC_URL = "/static/"
STATICFILES_DIRS = [("faces", ROOT / "upper_rim" / "shipped" / "fonts")]
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = DEBUG

AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 0.25
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_TEMPLATE = "accounts/locked.html"
AXES_VERBOSE = False
PASSWORD_HASHERS = [
    "django.contrib.auth.hashers.Argon2PasswordHasher",
    "django.contrib.auth.hashers.PBKDF2PasswordHasher",
]
AUTH_PASSWORD_VALIDATORS = [{"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"}]
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "sites"
LOGOUT_REDIRECT_URL = "sign-in"

CSRF_USE_SESSIONS = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = ADDRESS_SCHEME == "https"
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 5_000_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 1_000_000
LARGEST_UPLOAD = 300_000_000

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"
USE_I18N = False

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"axes": {"level": "ERROR"}, "procrastinate": {"level": "WARNING"}},
}
