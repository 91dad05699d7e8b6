"""Bytes of cues against other readers and writers, and against the documents that define them."""

import random
import socket
import struct

import mido
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pythonosc.osc_bundle_builder import OscBundleBuilder
from pythonosc.osc_message import OscMessage as Other
from pythonosc.osc_message_builder import OscMessageBuilder

from ombrel.core import BadFile, osc_heard, read_comes
from ombrel.formats.cue_bytes import cue_bytes, read_sheet, sheet_text
from ombrel.formats.midi import MidiStream, show_control_go
from ombrel.formats.osc import MOST_BYTES, Slip, read_packet, slipped, write_message
from ombrel.standin.cue_machine import CueMachine

_TEXTS = st.text(st.characters(min_codepoint=32, max_codepoint=0x2FF, exclude_characters="\x7f"))
_NUMBERS = st.integers(-(2**31), 2**31 - 1) | st.floats(width=32, allow_nan=False,
                                                        allow_infinity=False)  # fmt: skip
_VALUES = st.lists(_TEXTS | _NUMBERS | st.booleans(), max_size=8)


def _written(address, values):
    """As the other library writes it."""
    builder = OscMessageBuilder(address)
    for value in values:
        builder.add_arg(value)
    return builder.build().dgram


@given(_VALUES)
def test_what_another_writes_is_read_and_what_is_written_another_reads(values):
    [read] = read_packet(_written("/show/go", values))
    assert read.address == "/show/go"
    assert list(read.arguments) == pytest.approx(values) if values else read.arguments == ()
    assert Other(write_message("/show/go", *values)).params == pytest.approx(values)


@given(_VALUES, st.integers(0, 2**31 - 2**27))
def test_bundles_are_read_in_order_with_their_times(values, at_s):
    inner = OscBundleBuilder(at_s)
    inner.add_content(OscMessageBuilder("/b").build())
    outer = OscBundleBuilder(1)
    for value in values:
        builder = OscMessageBuilder("/a")
        builder.add_arg(value)
        outer.add_content(builder.build())
    outer.add_content(inner.build())
    read = read_packet(outer.build().dgram)
    assert [one.address for one in read] == ["/a"] * len(values) + ["/b"]
    assert read[-1].at_s is None or read[-1].at_s == pytest.approx(at_s, abs=1e-3)


@given(st.binary(max_size=80))
def test_any_bytes_are_read_or_refused(content):
    for packet in (content, b"/a\0\0" + content, b"#bundle\0" + content):
        try:
            read_packet(packet)
        except BadFile:
            continue


@pytest.mark.parametrize(
    "packet",
    [
        b"",
        b"/go",  # does not end
        b"/go\0,i\0\0",  # ends before its number
        b"/go\0,b\0\0\0\0\0\x04abcd",  # a blob
        b"/go\0,f\0\0" + struct.pack(">f", float("nan")),
        b"/go\0,s\0\0\xff\xfe\0\0",
        b"/go\0i\0\0\0" + b"\0\0\0\1",  # types without their comma
        b"#bundle\0" * 2 + b"\0\0\0\x10",
        b"/go\0" + b"\0" * MOST_BYTES,
    ],
)
def test_damaged_packets_are_refused_with_words(packet):
    with pytest.raises(BadFile, match="OSC packet is damaged"):
        read_packet(packet)


# ---- SLIP: END is C0, ESC is DB, a C0 of the data DB DC, a DB of it DB DD (RFC 1055)


def test_special_bytes_go_as_rfc_1055_says():
    assert slipped(b"a\xc0b\xdbc") == b"\xc0a\xdb\xdcb\xdb\xddc\xc0"
    assert Slip().feed(b"noise\xc0\xc0a\xdb\xdcb\xdb\xddc\xc0\xc0") == [b"noise", b"a\xc0b\xdbc"]
    assert Slip().feed(b"\xdbx\xc0") == [b"x"]  # a violation: taken as it is
    assert Slip().feed(b"\0" * (MOST_BYTES + 1) + b"\xc0ok\xc0") == [b"", b"ok"]


@given(st.lists(st.binary(min_size=1, max_size=60), max_size=6), st.integers(0, 2**32))
def test_packets_come_out_of_a_stream_however_it_is_cut(packets, seed):
    stream, draw, slip = b"".join(map(slipped, packets)), random.Random(seed), Slip()
    found = []
    while stream:
        size = draw.randint(1, 9)
        found += slip.feed(stream[:size])
        stream = stream[size:]
    assert found == packets


# ---- MIDI


def _as_other_says(message):
    """What a message of the other library comes to, told by its own fields."""
    match message.type:
        case "program_change":
            return f"program {message.program} on {message.channel + 1}"
        case "note_on" if message.velocity:
            return f"note {message.note} on {message.channel + 1}"
        case "control_change":
            return f"control {message.control} at {message.value} on {message.channel + 1}"
    return None


@pytest.mark.parametrize("seed", range(30))
def test_a_stream_means_what_another_reads_of_it(seed):
    draw = random.Random(seed)
    content = bytearray()
    for _ in range(120):
        status = draw.choice([0x80, 0x90, 0x90, 0xA0, 0xB0, 0xB0, 0xC0, 0xC0, 0xD0, 0xE0])
        status |= draw.randrange(16)
        few = (status & 0xF0) in (0xC0, 0xD0)
        runs = draw.choice([1, 1, 3])  # running status: data behind data of one status byte
        content.append(status)
        for _ in range(runs * (1 if few else 2)):
            content.append(draw.randrange(128))
            if draw.random() < 0.1:
                content.append(0xF8)  # a clock amid it
        if draw.random() < 0.1:
            content += bytes([0xF0, 0x7D, *draw.choices(range(128), k=5), 0xF7])
    # the other reader knows no running status in a stream: it is written out for it
    parser, plain = mido.Parser(), _without_running_status(content)
    parser.feed(plain)
    wanted = [said for one in parser if (said := _as_other_says(one))]
    stream, heard = MidiStream(), []
    while content:
        size = draw.randint(1, 5)
        heard += stream.feed(bytes(content[:size]))
        del content[:size]
    assert heard == wanted
    assert all(read_comes(one) == one for one in heard)


def _without_running_status(content):
    """Every message with its own status byte; clocks left out."""
    out, status, data, exclusive = bytearray(), 0, [], False
    for byte in content:
        if byte >= 0xF8:
            continue
        if byte >= 0x80:
            exclusive = byte == 0xF0
            status, data = (0 if byte >= 0xF0 else byte), []
            continue
        if exclusive or not status:
            continue
        data.append(byte)
        if len(data) == (1 if status & 0xF0 in (0xC0, 0xD0) else 2):
            out += bytes([status, *data])
            data = []
    return bytes(out)


@pytest.mark.parametrize(
    ("content", "heard"),
    [
        # the published supplement's frame: F0 7F dev 02 fmt 01 "12.5" F7 (value from memory)
        (b"\xf0\x7f\x7f\x02\x01\x0112.5\xf7", "show control go 12.5"),
        (b"\xf0\x7f\x00\x02\x7f\x0112\x001\xf7", "show control go 12 list 1"),
        (b"\xf0\x7f\x7f\x02\x01\x01\xf7", "show control go"),
    ],
)
def test_show_control_is_read_by_its_frame(content, heard):
    assert MidiStream().feed(content) == [heard]
    [other] = mido.parse_all(content)
    assert bytes(other.bytes()) == content


@pytest.mark.parametrize(
    "content",
    [
        b"\xf0\x7f\x7f\x02\x01\x0212\xf7",  # STOP
        b"\xf0\x7e\x7f\x02\x01\x0112\xf7",  # not in real time
        b"\xf0\x7f\x7f\x02\x01\x0112\x90\x3c\x40",  # broken off by a note
        b"\xf0" + b"\x01" * 100_000 + b"\xf7",
        b"\xf0\x7f\x7f\x02\x01\x01ab\xf7",
    ],
)
def test_what_is_no_go_is_none(content):
    heard = MidiStream().feed(content)
    assert all(not one.startswith("show control") for one in heard)


def test_a_go_that_is_written_is_read():
    assert MidiStream().feed(show_control_go("4.5", "2")) == ["show control go 4.5 list 2"]


@given(_VALUES)
def test_what_is_heard_can_be_typed(values):
    told = osc_heard("/show/go", values)
    if len(told) <= 200:
        assert read_comes(told) == told


# ---- what a machine sends


@pytest.mark.parametrize(
    "comes",
    ['/show/go 12 4.5 "two words" true false nothing', "program 12 on 3", "note 60 on 16",
     "control 7 at 100 on 2", "show control go 12.5 list 2", "show control go 4"],
)  # fmt: skip
def test_what_a_machine_sends_is_heard_as_what_it_is(comes):
    content = cue_bytes(comes)
    if comes.startswith("/"):
        [one] = read_packet(content)
        assert osc_heard(one.address, one.arguments) == comes
        assert Other(content).address == "/show/go"
    else:
        assert MidiStream().feed(content) == [comes]
        assert [bytes(one.bytes()) for one in mido.parse_all(content)] == [content]


def test_a_sheet_is_read_as_it_is_written_and_its_wrong_line_is_named():
    rows = [("0.0", "/cue 1", "Scene 1, the first"), ("2.5", "program 3 on 1", "Scene 2")]
    assert read_sheet(sheet_text(rows)) == [(0.0, "/cue 1"), (2.5, "program 3 on 1")]
    assert read_sheet("3,note 1\n\n1.5,/a\n") == [(1.5, "/a"), (3.0, "note 1 on 1")]
    for bad in ("0,/a\nlamp,/b", "0,/a\n1", "0,/a\n1,pear", "0,/a\n-1,/b", "0,/a\nnan,/b"):
        with pytest.raises(BadFile, match="Line 2"):
            read_sheet(bad)


def test_a_machine_loses_doubles_and_swaps_as_it_is_told():
    """Its sheet by a clock of the test's own, into a socket of the test's own."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as hears:
        hears.bind(("127.0.0.1", 0))
        hears.settimeout(5)
        for faults, wanted in (
            ((0.0, 0.0, 0.0), ["/c 0", "/c 1", "/c 2", "/c 3"]),
            ((1.0, 0.0, 0.0), []),
            ((0.0, 1.0, 0.0), ["/c 0", "/c 0", "/c 1", "/c 1", "/c 2", "/c 2", "/c 3", "/c 3"]),
            ((0.0, 0.0, 1.0), ["/c 1", "/c 0", "/c 3", "/c 2"]),
        ):
            machine = CueMachine()
            told = [
                write_message("/machine/target", "osc_udp", *hears.getsockname()),
                write_message("/machine/faults", *faults),
                *(write_message("/machine/line", float(n), f"/c {n}") for n in range(4)),
                write_message("/machine/play"),
            ]
            for one in (message for packet in told for message in read_packet(packet)):
                machine.obey(one, 0.0)
            for now_s in (0.0, 0.5, 1.0, 2.0, 3.0):
                machine.step(now_s)
            heard = [hears.recv(200) for _ in wanted]
            assert [
                osc_heard(m.address, m.arguments) for c in heard for m in read_packet(c)
            ] == wanted
            assert machine.sent == len(wanted)
