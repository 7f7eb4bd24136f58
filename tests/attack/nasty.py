"""Values that nobody means, and that somebody sends."""

import random

VALUES = (
    "", " ", "0", "-1", "-0", "1e400", "1E+1", "1e-400", "NaN", "Infinity", "inf mm", "²", "½ mm", "١٢ mm",
    "9" * 25, "9" * 5000, "1/0 mm", "0.00000001 mm", "99999999999999999999 km", "+5 mm", "5. mm", ".5",
    "1,5,5", "12:60", "0:00", "13", "left", "x" * 10_000, "\x00", "a\x00b", "\ud800", "\udfff mm",
    "\u202e", "\ufeff1 mm", "\r\n", "\t", "=1+1", "-2+3+cmd|' /C calc'!A0", "<script>", "{{ 1 }}", "{% load %}",
    "../../etc/passwd", "//elsewhere.example/", "javascript:alert(1)", "http://[::1", "0x10", "1_000", "0001",
    "true", "None", "[]", "{}", "'; DROP TABLE bench_entry; --", "%00", "%s%s%s%n", "\N{PILE OF POO}" * 50,
    "0.1 mm", "2 thou", "61 N·m", "yes", "open", "change", "last", "bolt", "moved", "few", "in", "out",
    "9223372036854775807", "9223372036854775808", "2147483648", "-2147483649", "00000000-0000-0000-0000-000000000000",
    "0001-01-01", "9999-12-31", "2026-02-30", "10000-01-01",
)  # fmt: skip

BODIES = (
    (b"", "application/x-www-form-urlencoded"),
    (b"value=%ff%fe", "application/x-www-form-urlencoded"),
    (b"value=%ED%A0%80&token=%00", "application/x-www-form-urlencoded"),
    (b"value=caf\xe9", "application/x-www-form-urlencoded; charset=latin-1"),
    (b"value=+AGE-", "application/x-www-form-urlencoded; charset=utf-7"),
    ("value=1".encode("utf-16"), "application/x-www-form-urlencoded; charset=utf-16"),
    (b"value=1", "application/x-www-form-urlencoded; charset=no-such"),
    (b"&".join(b"a%d=1" % i for i in range(2000)), "application/x-www-form-urlencoded"),
    (b"--x\r\nContent-Disposition: form-data; name=\"value\"\r\n\r\n1", "multipart/form-data; boundary=x"),
    (b"rubbish", "multipart/form-data"),
    (b"rubbish", "multipart/form-data; boundary=" + "x" * 300),
    (b"{\"value\": 1}", "application/json"),
    (b"\x00\x01\x02", "application/octet-stream"),
)  # fmt: skip


def some(chance: random.Random) -> str:
    """One nasty value, or two run together."""
    one = chance.choice(VALUES)
    return one + chance.choice(VALUES)[:50] if chance.random() < 0.15 else one


def quoted(value: str) -> bytes:
    """A value in a query or a body, lone surrogates and all."""
    raw = value.encode("utf-8", "surrogatepass")
    return b"".join(b"%%%02X" % byte for byte in raw)
