"""Settings for running Green Measure; `settings_test` narrows them for tests. All that varies comes from the environment."""

import os
import secrets
from pathlib import Path

import dj_database_url
from csp.constants import NONCE, NONE, SELF

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("GREENMEASURE_VAR", ROOT / "var"))


def _secret_key() -> str:
    """The key from the environment, or one made at the first start and kept beside the data."""
    if key := os.environ.get("SECRET_KEY"):
        return key
    VAR.mkdir(parents=True, exist_ok=True, mode=0o700)
    kept = VAR / "secret_key"
    if not kept.exists():
        kept.touch(mode=0o600)
        kept.write_text(secrets.token_urlsafe(50))
    return kept.read_text()


SECRET_KEY = _secret_key()
DEBUG = os.environ.get("DEBUG", "") == "1"
ALLOWED_HOSTS = os.environ.get("ALLOWED_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
HTTPS = os.environ.get("HTTPS", "") == "1"
PROXY = os.environ.get("PROXY", "")
"""The address of a proxy that is believed: it tells scheme, host and who asks, see docs/operations.md."""
if PROXY:  # waitress has put right what the proxy told; another server leaves these headers to Django
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    USE_X_FORWARDED_HOST = True
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("CSRF_TRUSTED_ORIGINS", "").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "csp",
    "axes",
    "greenmeasure.accounts",
    "greenmeasure.ground",
    "greenmeasure.shelf",
    "greenmeasure.kit",
    "greenmeasure.water",
    "greenmeasure.work",
    "greenmeasure.programme",
    "greenmeasure.outings",
    "greenmeasure.trials",
    "greenmeasure.scouting",
    "greenmeasure.sky",
    "greenmeasure.reckon",
    "greenmeasure.season",
    "greenmeasure.rounds",
    "greenmeasure.book",
    "greenmeasure.archive",
    "greenmeasure.demo",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",  # before WhiteNoise, so that static pages carry the policy too
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",  # pads what it packs, so that lengths tell no secret
    "greenmeasure.common.doorway.DoorwayMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "greenmeasure.accounts.once.OnceMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "greenmeasure.urls"
WSGI_APPLICATION = "greenmeasure.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

DATABASES = {"default": dj_database_url.config(default=f"sqlite:///{VAR / 'greenmeasure.sqlite3'}")}
if DATABASES["default"]["ENGINE"].endswith("sqlite3"):
    DATABASES["default"]["OPTIONS"] = {
        "timeout": 20,
        "transaction_mode": "IMMEDIATE",
        "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA busy_timeout=20000;",
    }
DATABASES["default"]["CONN_MAX_AGE"] = 60
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "greenmeasure.accounts.lockout.locked_out"
AXES_ENABLE_ADMIN = False
AXES_VERBOSE = False

SAMPLE = os.environ.get("SAMPLE", "")
"""The address of an account that anybody may look round in, and change nothing of; none where it is empty."""
FOUNDING = os.environ.get("FOUNDING", "1") == "1"
"""Whether anybody may open an account here."""
EMAIL_HOST = os.environ.get("EMAIL_HOST", "")
EMAIL_PORT = int(os.environ.get("EMAIL_PORT", "587"))
EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = os.environ.get("EMAIL_USER", ""), os.environ.get("EMAIL_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("EMAIL_TLS", "1") == "1"
EMAIL_TIMEOUT = 10
DEFAULT_FROM_EMAIL = os.environ.get("EMAIL_FROM", "green-measure@localhost")
PASSWORD_RESET_TIMEOUT = 60 * 60 * 24

SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF, NONCE],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "object-src": [NONE],
        "base-uri": [SELF],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}

LANGUAGE_CODE = "en"
TIME_ZONE = "UTC"
USE_TZ = True
USE_I18N = False

STATIC_URL = "static/"
PRIVATE_STATIONS = os.environ.get("PRIVATE_STATIONS", "") == "1"
"""Whether stations may be asked at loopback and private addresses: for the demo, and where a service stands in the house."""
CLOCK = os.environ.get("GREENMEASURE_CLOCK", "")
WEB_BUILD = Path(os.environ.get("GREENMEASURE_WEB", ROOT / "web" / "dist"))
WHITENOISE_ROOT = WEB_BUILD if WEB_BUILD.is_dir() else None
WHITENOISE_INDEX_FILE = False
WHITENOISE_MIMETYPES = {".webmanifest": "application/manifest+json", ".woff2": "font/woff2"}


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:
    """Vite puts a hash in the name of everything below /assets/."""
    return url.startswith("/assets/")


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"pypdf": {"level": "CRITICAL"}},  # what is no PDF is told to whoever sent it
}
