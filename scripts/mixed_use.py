#!/usr/bin/env python3
"""Clients who use Ulvek at once, as several screens do, and what they found: requests a second, and how long each
kind of request took. A third asks for the outlook, others for pictures, strata, gates, log and season; one in twenty
writes a note, one in twenty edits a picture. Usage: mixed_use.py ADDRESS SECONDS [CLIENTS], the address as
127.0.0.1:8123, 20 clients if not said. It makes four demo studios there: point it at a data folder of its own."""

import collections
import http.client
import json
import random
import sys
import threading
import time

# Each with a quarter of the clients.
STUDIOS = 4
# Share of all requests up to which each kind is drawn.
KINDS = {"outlook": 0.35, "picture": 0.5, "strata": 0.6, "gates": 0.7, "log": 0.8, "season": 0.9, "note": 0.95, "edit": 1.0}


class Client:
    def __init__(self, address):
        self.connection = http.client.HTTPConnection(address, timeout=60)

    def ask(self, method, path, body=None, accept="gzip"):
        headers = {"content-type": "application/json", "accept-encoding": accept}
        self.connection.request(method, "/api" + path, None if body is None else json.dumps(body), headers)
        answer = self.connection.getresponse()
        return answer.status, answer.read()

    def read(self, method, path):
        return json.loads(self.ask(method, path, accept="identity")[1])


def use(client, studio, picture, kind, chance):
    """One request of `kind`: when it was sent, and the status of its answer."""
    views = {"picture": f"/pictures/{picture}", "strata": f"/pictures/{picture}/strata"}
    sent = time.monotonic()
    if kind == "note":
        note = {"what": {"kind": "noted"}, "words": f"note {chance.random()}"}
        return sent, client.ask("POST", f"/studios/{studio}/daybook", note)[0]
    if kind == "edit":
        stored = client.read("GET", f"/pictures/{picture}")
        stored["picture"]["title"] = f"Lamp {chance.random():.3f}"
        edit = {"version": stored["version"], "label": "rename", "picture": stored["picture"]}
        sent = time.monotonic()
        return sent, client.ask("PUT", f"/pictures/{picture}", edit)[0]
    return sent, client.ask("GET", views.get(kind, f"/studios/{studio}/{kind}"))[0]


def main():
    address, seconds = sys.argv[1], float(sys.argv[2])
    clients = int(sys.argv[3]) if len(sys.argv) > 3 else 20
    first, pictures = Client(address), {}
    for _ in range(STUDIOS):
        studio = first.read("POST", "/studios/demo")["id"]
        outlook = first.read("GET", f"/studios/{studio}/outlook")
        pictures[studio] = [picture["id"] for picture in outlook["pictures"]]
        # Everybody has looked at everything once before it counts.
        for path in [f"/studios/{studio}/season", f"/studios/{studio}/gates"] + [f"/pictures/{p}/strata" for p in pictures[studio]]:
            first.ask("GET", path)
    times, statuses, lock = collections.defaultdict(list), collections.Counter(), threading.Lock()
    end = time.monotonic() + seconds

    def work(n):
        chance, client, studio = random.Random(n), Client(address), list(pictures)[n % STUDIOS]
        while time.monotonic() < end:
            drawn = chance.random()
            kind = next(kind for kind, share in KINDS.items() if drawn < share)
            sent, status = use(client, studio, chance.choice(pictures[studio]), kind, chance)
            with lock:
                times[kind].append(time.monotonic() - sent)
                statuses[status] += 1

    threads = [threading.Thread(target=work, args=(n,)) for n in range(clients)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    every = [t for some in times.values() for t in some]
    print(f"{len(every) / seconds:.0f} requests a second, answers: {dict(statuses)}")
    for kind, some in [("all", every), *times.items()]:
        some = sorted(some)
        half, most = (1000 * some[int(len(some) * share)] for share in (0.5, 0.99))
        print(f"{kind}: {len(some)}, half within {half:.0f} ms, 99 of 100 within {most:.0f} ms")


if __name__ == "__main__":
    main()
