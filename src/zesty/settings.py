"""Django's settings; what differs between machines comes from the environment."""

from datetime import timedelta
from pathlib import Path

import environ
from csp.constants import NONE, SELF

env = environ.Env()
SRC = Path(__file__).resolve().parents[1]
VAR = Path(env("ZESTY_VAR", default=str(SRC.parent / "var")))

SECRET_KEY = env("ZESTY_SECRET_KEY")
DEBUG = False
ALLOWED_HOSTS = env.list("ZESTY_HOSTS", default=["127.0.0.1", "localhost", "[::1]"])
BEHIND_PROXY = bool(env("ZESTY_PROXY", default=""))
ROOT_URLCONF = "zesty.urls"
WSGI_APPLICATION = "zesty.wsgi.application"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "whitenoise.runserver_nostatic",
    "django.contrib.staticfiles",
    "django_htmx",
    "axes",
    "csp",
    "zesty.elements",
    "zesty.people",
    "zesty.fleet",
    "zesty.cards",
    "zesty.stores",
    "zesty.bench",
    "zesty.records",
    "zesty.stages",
    "zesty.yard",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "zesty.elements.watch.WatchMiddleware",
    "zesty.elements.trouble.DatabaseDownMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "zesty.people.middleware.MemberMiddleware",
    "axes.middleware.AxesMiddleware",
    "zesty.elements.trouble.UnjudgedMiddleware",
]
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [
            SRC / "zesty" / "templates",
            *sorted((SRC / "zesty" / "stages").glob("*/templates")),
        ],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ],
            "builtins": ["zesty.elements.templatetags.trade"],
        },
    }
]
OWN_DATABASE = bool(env("ZESTY_OWN_DATABASE", default=""))
"""Whether ./zesty start made it; the demo and its sign-ins live in no other."""
DATABASE_DOWN = VAR / "database.down"
"""Stands while the launcher finds that PostgreSQL does not answer."""
DATABASES = {
    "default": {
        **env.db("DATABASE_URL"),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "connect_timeout": 2,
            "options": "-c statement_timeout=20s -c lock_timeout=10s "
            "-c idle_in_transaction_session_timeout=90s",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "zesty.people.backends.MemberBackend",
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=5)
AXES_LOCKOUT_PARAMETERS = ["username", "ip_address"]
AXES_RESET_ON_SUCCESS = True
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_LOCKOUT_CALLABLE = "zesty.people.views.locked_out"
AXES_VERBOSE = False
AUTH_USER_MODEL = "people.User"
LOGIN_URL = "people:sign_in"
LOGIN_REDIRECT_URL = "yard:yard"
LOGOUT_REDIRECT_URL = "people:sign_in"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
        "UserAttributeSimilarityValidator",
    )
]

LANGUAGE_CODE = "en"
TIME_ZONE = env("TZ", default="UTC")
USE_TZ = True
USE_I18N = False

STATIC_URL = "static/"
STATIC_ROOT = VAR / "static"
STATICFILES_DIRS = [SRC / "zesty" / "static"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedManifestStaticFilesStorage"},
}

DATA_UPLOAD_MAX_MEMORY_SIZE = 6_000_000
SESSION_ENGINE = "zesty.people.sessions"
SESSION_COOKIE_HTTPONLY = True
CSRF_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
if BEHIND_PROXY:
    # Others reach it, so only over TLS, which a proxy in front speaks.
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = True
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SECURE_HSTS_SECONDS = 30 * 24 * 3600
    SECURE_REDIRECT_EXEMPT = [r"^alive$"]
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        # Bootstrap's own small icons are data addresses inside its style sheet.
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"waitress.queue": {"level": "ERROR"}},
}
