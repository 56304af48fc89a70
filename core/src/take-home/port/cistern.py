"""The demo's rule set, carried over to Python from PORTING.md alone: what that page says has to be enough.

Run as `python3 cistern.py FOLDER LOG...`: prints the trace of each golden/LOG.inputs of a folder that was taken home.
"""

import json
import sys

TILE = 4096
HALF = 2048
SPEED = 512
BUFFER_FRAMES = 8
STEP = {"L": (-1, 0), "R": (1, 0), "U": (0, -1), "D": (0, 1)}
WORDS = {(-1, 0): "left", (1, 0): "right", (0, -1): "up", (0, 1): "down"}
WAYS = {word: step for step, word in WORDS.items()}


def occupied(x, y):
    return (x + HALF) // TILE, (y + HALF) // TILE


class Run:
    def __init__(self, world, room, cell, facing):
        self.world = world
        self.frame = 0
        self.status = "playing"
        self.events = []
        self.room = room
        self.x, self.y = cell[0] * TILE, cell[1] * TILE
        self.facing = facing
        self.image, self.counter, self.still, self.moving = 0, 0, 0, False
        self.held = ""
        self.pressed = ""
        self.when = {}
        self.leg, self.gone = None, 0
        self.remembered = None
        self.bumping = False
        self.went = None
        self.bag = [0] * len(world["items"])
        self.circuits = [False] * len(world["circuits"])
        self.taken, self.open, self.noted, self.touched = set(), set(), set(), set()
        self.pushed, self.pushed_before = set(), set()
        self.checkpoint = None
        self.start = (room, cell)

    def set_up(self, what, name, count):
        number = next((i for i, each in enumerate(self.world["fixtures"]) if each["id"] == name), None)
        if what == "holds":
            self.bag[self.world["items"].index(name)] = count
        elif what == "taken":
            self.taken.add(number)
        elif what == "open":
            self.open.add(number)
        elif what == "circuit":
            self.circuits[self.world["circuits"].index(name)] = True
        elif what == "respawn":
            self.checkpoint = number

    def begin(self):
        self.follow(told=False)
        self.touch_portals()

    # One frame, in the order of the page.
    def step(self, keys):
        self.frame += 1
        self.events = []
        self.pushed_before, self.pushed = self.pushed, set()
        self.read_keys(keys)
        before = self.x, self.y
        bumped, self.bumping = self.bumping, False
        self.went = None
        self.move()
        if self.bumping and not bumped:
            self.events.append("bump")
        self.escape()
        self.face()
        self.pace(abs(self.x - before[0]) + abs(self.y - before[1]))
        if self.status == "escaped":
            return
        self.cross()
        marked, was_put = self.touch()
        self.close_behind()
        self.follow(told=True)
        if not was_put:
            self.ask()
        if self.world["goal"] in marked:
            self.status = "won"
            self.events.append("win")

    def read_keys(self, keys):
        self.pressed = [key for key in "LRUDAB" if key in keys and key not in self.held]
        self.held = keys
        for key in self.pressed:
            self.when[key] = (self.frame, "LRUDAB".index(key))
        x = ("R" in keys) - ("L" in keys)
        y = ("D" in keys) - ("U" in keys)
        self.intent, self.second = (x, y), None
        if x != 0 and y != 0:
            x_later = self.when["L" if x < 0 else "R"] > self.when["U" if y < 0 else "D"]
            self.intent, self.second = ((x, 0), (0, y)) if x_later else ((0, y), (x, 0))

    def seen(self, cx, cy):
        """The cell at a place, read through sides; None for wall."""
        room = self.room
        for crossings in range(3):
            here = self.world["rooms"][room]
            if cx < 0 or cx >= here["width"]:
                side, along = ("west" if cx < 0 else "east"), cy
            elif cy < 0 or cy >= here["height"]:
                side, along = ("north" if cy < 0 else "south"), cx
            else:
                return room, cx, cy
            span = self.span(room, side, along)
            if span is None or crossings == 2:
                return None
            there = self.world["rooms"][span["room"]]
            if side in ("west", "east"):
                cx += there["width"] if side == "west" else -here["width"]
                cy += span["offset"]
            else:
                cy += there["height"] if side == "north" else -here["height"]
                cx += span["offset"]
            room = span["room"]
        return None

    def span(self, room, side, along):
        for span in self.world["rooms"][room]["edges"][side]:
            if span["from"] <= along <= span["to"]:
                return span
        return None

    def door_in(self, cell):
        for number in self.world["doors"]:
            door = self.world["fixtures"][number]
            if number not in self.open and (door["room"], *door["cell"]) == cell:
                return number
        return None

    def is_free(self, x, y, pushes):
        free = True
        # The body is the whole square: it is in a cell where they overlap.
        for cy in range(y // TILE, (y + TILE - 1) // TILE + 1):
            for cx in range(x // TILE, (x + TILE - 1) // TILE + 1):
                cell = self.seen(cx, cy)
                if cell is None:
                    free = False
                    continue
                if self.world["rooms"][cell[0]]["cells"][cell[2]][cell[1]] == 1:
                    free = False
                door = self.door_in(cell)
                if door is not None:
                    free = False
                    if pushes:
                        self.pushed.add(door)
        return free

    def move(self):
        directions = [key for key in self.pressed if key in STEP]
        if self.leg is not None and directions:
            self.remembered = (directions[-1], self.frame)
        budget = SPEED
        while True:
            if self.leg is None:
                self.leg = self.choose()
                self.gone = 0
                if self.leg is None:
                    self.bumping = self.intent != (0, 0)
                    return
            self.went = self.leg
            units = min(budget, TILE - self.gone)
            self.x += self.leg[0] * units
            self.y += self.leg[1] * units
            self.gone += units
            budget -= units
            if self.gone < TILE:
                return
            self.leg = None
            self.events.append("arrive")
            if budget == 0 or self.is_on_portal():
                return

    def is_on_portal(self):
        cell = self.seen(*occupied(self.x, self.y))
        return any(each["kind"] == "portal" and (each["room"], *each["cell"]) == cell for each in self.world["fixtures"])

    def choose(self):
        remembered, self.remembered = self.remembered, None
        if remembered is not None:
            key, frame = remembered
            in_time = self.frame - frame <= BUFFER_FRAMES and key not in self.held
            if in_time and self.is_free(self.x + STEP[key][0] * TILE, self.y + STEP[key][1] * TILE, False):
                return STEP[key]
        for way in (self.intent, self.second):
            if way in (None, (0, 0)):
                continue
            if self.is_free(self.x + way[0] * TILE, self.y + way[1] * TILE, True):
                return way
        return None

    def escape(self):
        room = self.world["rooms"][self.room]
        column, row = occupied(self.x, self.y)
        beyond = [
            (self.x <= -TILE, "west", row),
            (self.x >= room["width"] * TILE, "east", row),
            (self.y <= -TILE, "north", column),
            (self.y >= room["height"] * TILE, "south", column),
        ]
        if any(out and self.span(self.room, side, along) is None for out, side, along in beyond):
            self.status = "escaped"
            self.events.append("escape")

    def face(self):
        way = self.went or self.intent
        if way != (0, 0):
            self.facing = WORDS[way]

    def pace(self, moved):
        self.moving = moved > 0
        if self.moving:
            self.still = 0
            self.counter += moved
            self.image = self.counter // 2048 % 4
            return
        self.still += 1
        if self.still >= 12:
            self.image, self.counter = 0, 0

    def cross(self):
        for _ in range(2):
            here = self.world["rooms"][self.room]
            column, row = occupied(self.x, self.y)
            sides = []
            if self.x < -HALF:
                sides.append(("west", row))
            elif self.x >= here["width"] * TILE - HALF:
                sides.append(("east", row))
            if self.y < -HALF:
                sides.append(("north", column))
            elif self.y >= here["height"] * TILE - HALF:
                sides.append(("south", column))
            found = next(((side, span) for side, along in sides if (span := self.span(self.room, side, along))), None)
            if found is None:
                return
            side, span = found
            there = self.world["rooms"][span["room"]]
            if span["wraps"]:
                self.events.append("wrap")
            else:
                self.change_room(span["room"])
            if side in ("west", "east"):
                self.x += (there["width"] if side == "west" else -here["width"]) * TILE
                self.y += span["offset"] * TILE
            else:
                self.y += (there["height"] if side == "north" else -here["height"]) * TILE
                self.x += span["offset"] * TILE

    def change_room(self, room):
        self.events.append("leave:" + self.world["rooms"][self.room]["id"])
        self.touched = set()
        self.as_at_first(lambda each: each["keeps"] == "visit" and each["room"] == self.room)
        self.room = room
        self.events.append("enter:" + self.world["rooms"][room]["id"])

    def as_at_first(self, meant):
        for number, fixture in enumerate(self.world["fixtures"]):
            if not meant(fixture):
                continue
            if fixture["kind"] == "item":
                self.taken.discard(number)
            if fixture["kind"] == "switch":
                self.circuits[fixture["circuit"]] = False
            if fixture["kind"] == "door" and fixture["lock"] in ("none", "item"):
                self.open.discard(number)
                self.noted.discard(number)

    def put(self, room, cell):
        self.x, self.y = cell[0] * TILE, cell[1] * TILE
        self.leg = None
        if room != self.room:
            self.change_room(room)
        self.touch_portals()

    def touch_portals(self):
        for number, fixture in enumerate(self.world["fixtures"]):
            if fixture["kind"] == "portal" and fixture["room"] == self.room and self.is_touched(fixture):
                self.touched.add(number)

    def is_touched(self, fixture):
        column, row = occupied(self.x, self.y)
        (cx, cy), (across, down) = fixture["cell"], fixture["size"]
        return cx <= column < cx + across and cy <= row < cy + down

    def touch(self):
        """Gives the fixtures that are touched, and whether the walker was put elsewhere."""
        room, there = self.room, set()
        for number, fixture in enumerate(self.world["fixtures"]):
            if fixture["room"] != room or fixture["kind"] == "door":
                continue
            if number in self.taken or not self.is_touched(fixture):
                self.touched.discard(number)
                continue
            there.add(number)
            kind, name = fixture["kind"], fixture["id"]
            if number in self.touched or (kind == "portal" and self.leg is not None):
                continue
            if kind == "item":
                self.bag[fixture["item"]] += fixture["count"]
                self.taken.add(number)
                self.events.append("take:" + name)
                continue
            self.touched.add(number)
            if kind == "portal":
                self.events.append("portal:" + name)
                self.facing = fixture["toFacing"] or self.facing
                self.put(fixture["toRoom"], fixture["toCell"])
                return there, True
            if kind == "hazard":
                self.events.append("hurt:" + name)
                self.respawn()
                return there, True
            if kind == "checkpoint":
                if self.checkpoint != number:
                    self.events.append("checkpoint:" + name)
                self.checkpoint = number
            if kind == "switch":
                self.circuits[fixture["circuit"]] = not self.circuits[fixture["circuit"]]
                self.events.append("switch:" + name)
            if kind == "marker":
                self.events.append("marker:" + name)
        return there, False

    def respawn(self):
        self.as_at_first(lambda each: each["keeps"] == "life")
        self.events.append("respawn")
        self.remembered = None
        if self.checkpoint is None:
            self.put(*self.start)
        else:
            fixture = self.world["fixtures"][self.checkpoint]
            self.put(fixture["room"], fixture["cell"])

    def close_behind(self):
        cells = [
            self.seen(cx, cy)
            for cy in range(self.y // TILE, (self.y + TILE - 1) // TILE + 1)
            for cx in range(self.x // TILE, (self.x + TILE - 1) // TILE + 1)
        ]
        for number in self.world["doors"]:
            door = self.world["fixtures"][number]
            if number not in self.open or not door["closesBehind"]:
                continue
            if (door["room"], *door["cell"]) in cells:
                self.noted.add(number)
            elif number in self.noted:
                self.noted.discard(number)
                self.open.discard(number)
                self.events.append("close:" + door["id"])

    def follow(self, told):
        for number in self.world["doors"]:
            door = self.world["fixtures"][number]
            if door["lock"] == "circuit":
                is_open = self.circuits[door["circuit"]] == door["openWhileOn"]
            elif door["lock"] == "collected":
                giving = [i for i, each in enumerate(self.world["fixtures"]) if each["kind"] == "item" and each["item"] == door["item"]]
                is_open = len(giving) > 0 and all(i in self.taken for i in giving)
            else:
                continue
            if is_open == (number in self.open):
                continue
            (self.open.add if is_open else self.open.discard)(number)
            if told:
                self.events.append(("open:" if is_open else "close:") + door["id"])

    def ask(self):
        column, row = occupied(self.x, self.y)
        dx, dy = WAYS[self.facing]
        faced = self.seen(column + dx, row + dy) if "A" in self.pressed else None
        for number in self.world["doors"]:
            door = self.world["fixtures"][number]
            if number in self.open or door["lock"] not in ("none", "item"):
                continue
            used = door["opensOnUse"] and faced == (door["room"], *door["cell"])
            if not used and (door["opensOnUse"] or number not in self.pushed):
                continue
            if door["lock"] == "item":
                if self.bag[door["item"]] < door["count"]:
                    if used or number not in self.pushed_before:
                        self.events.append("refused:" + door["id"])
                    continue
                if door["spends"]:
                    self.bag[door["item"]] -= door["count"]
            self.open.add(number)
            self.noted.discard(number)
            self.events.append("open:" + door["id"])

    def row(self, keys):
        cx, cy = occupied(self.x, self.y)
        aligned = int(self.x % TILE == 0 and self.y % TILE == 0)
        room = self.world["rooms"][self.room]["id"]
        fields = [self.frame, keys, room, self.x, self.y, cx, cy, self.facing, self.image, int(self.moving), aligned]
        return ",".join(map(str, [*fields, self.status, ";".join(self.events)]))


def main(folder, log):
    with open(folder + "/world.json", encoding="utf-8") as file:
        world = json.load(file)
    with open(f"{folder}/golden/{log}.inputs", encoding="utf-8") as file:
        head, body = file.read().split("\n---\n")
    rooms = [room["id"] for room in world["rooms"]]
    start = world["start"]["room"], world["start"]["cell"], world["start"]["facing"]
    for line in head.split("\n"):
        words = line.split(" ")
        if words[0] == "start":
            start = rooms.index(words[1]), [int(words[2]), int(words[3])], words[4]
    run = Run(world, *start)
    for line in head.split("\n"):
        words = line.split(" ")
        if words[0] == "with":
            count = int(words[3]) if len(words) > 3 and words[1] == "holds" else 1
            run.set_up(words[1], words[2], count)
    run.begin()
    rows = ["frame,keys,room,x,y,cx,cy,facing,pose,moving,aligned,status,events", run.row(".")]
    for line in body.split("\n"):
        if line == "":
            continue
        count, keys = line.split(" ")[:2]
        for _ in range(int(count)):
            if run.status != "playing":
                break
            run.step("" if keys == "." else keys)
            rows.append(run.row(keys))
    sys.stdout.write("".join(row + "\r\n" for row in rows))


for name in sys.argv[2:]:
    main(sys.argv[1], name)
