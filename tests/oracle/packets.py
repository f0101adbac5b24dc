# Sends and hears frames as hexadecimal lines. Nothing but Python's own library.
#   packets.py hear DEVICE      prints every IP frame that comes in, until its input ends
#   packets.py send DEVICE      sends every line of its input as a frame
#   packets.py own              sends every line of its input as an IP packet of this machine itself
import select
import socket
import sys

ETH_P_ALL = 3


def hear(device):
    s = socket.socket(socket.AF_PACKET, socket.SOCK_RAW, socket.htons(ETH_P_ALL))
    s.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 64 << 20)
    s.bind((device, 0))
    print("ready", flush=True)
    while True:
        ready, _, _ = select.select([s, sys.stdin], [], [])
        if s in ready:
            frame, where = s.recvfrom(65535)
            # What this side sends itself is heard too, and is of no interest.
            if where[2] != socket.PACKET_OUTGOING and frame[12:14] in (b"\x08\x00", b"\x86\xdd"):
                print(frame[14:].hex())
        elif sys.stdin in ready and sys.stdin.readline() == "":
            sys.stdout.flush()
            return


def send(device):
    s = socket.socket(socket.AF_PACKET, socket.SOCK_RAW)
    s.bind((device, 0))
    for line in sys.stdin:
        s.send(bytes.fromhex(line.strip()))


def own():
    four = socket.socket(socket.AF_INET, socket.SOCK_RAW, socket.IPPROTO_RAW)
    four.setsockopt(socket.IPPROTO_IP, socket.IP_HDRINCL, 1)
    six = socket.socket(socket.AF_INET6, socket.SOCK_RAW, socket.IPPROTO_RAW)
    six.setsockopt(41, 36, 1)  # IPPROTO_IPV6, IPV6_HDRINCL
    for line in sys.stdin:
        packet = bytes.fromhex(line.strip())
        try:
            if packet[0] >> 4 == 4:
                four.sendto(packet, (socket.inet_ntop(socket.AF_INET, packet[16:20]), 0))
            else:
                six.sendto(packet, (socket.inet_ntop(socket.AF_INET6, packet[24:40]), 0))
        except OSError:
            # The kernel tells the sender that its own filter refused it: that is an answer, not a fault.
            pass


if sys.argv[1] == "hear":
    hear(sys.argv[2])
elif sys.argv[1] == "send":
    send(sys.argv[2])
else:
    own()
