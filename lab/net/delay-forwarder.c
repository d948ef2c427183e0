/*
 * Joins two network namespaces by a wire with a delay: everything that enters one TUN device comes out of the other
 * after DELAY_US microseconds, in order, in both directions. The kernel here has no delay of its own to offer.
 *
 * delay-forwarder NETNS_A DEVICE_A NETNS_B DEVICE_B DELAY_US
 *
 * Prints "ready" when both devices exist. Ends with its standard input, so that it never outlives the lab.
 */
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <linux/if.h>
#include <linux/if_tun.h>
#include <poll.h>
#include <sched.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/ioctl.h>
#include <sys/prctl.h>
#include <time.h>
#include <unistd.h>

/* A large packet that the kernel has not cut up yet, with the header that says so (struct virtio_net_hdr). */
#define MOST_BYTES 65600
/* 64 MB hold half a second of 1 Gb/s. */
#define RING_BYTES (64u * 1024 * 1024)

struct record {
  uint64_t due_ns;
  uint32_t bytes;
};

/* Records with their packets in a ring; head and tail count bytes ever written and taken. */
struct wire {
  int from, to;
  uint64_t head, tail;
  unsigned char *ring;
};

static uint64_t now_ns(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return (uint64_t)t.tv_sec * 1000000000ull + (uint64_t)t.tv_nsec;
}

static void fail(const char *what) {
  perror(what);
  exit(1);
}

static int open_tun(const char *netns, const char *device) {
  char path[256];
  snprintf(path, sizeof path, "/run/netns/%s", netns);
  int ns = open(path, O_RDONLY | O_CLOEXEC);
  if (ns < 0 || setns(ns, CLONE_NEWNET) < 0) fail(path);
  close(ns);
  int fd = open("/dev/net/tun", O_RDWR | O_NONBLOCK | O_CLOEXEC);
  if (fd < 0) fail("/dev/net/tun");
  struct ifreq request;
  memset(&request, 0, sizeof request);
  request.ifr_flags = IFF_TUN | IFF_NO_PI | IFF_VNET_HDR;
  strncpy(request.ifr_name, device, IFNAMSIZ - 1);
  if (ioctl(fd, TUNSETIFF, &request) < 0) fail("TUNSETIFF");
  /* Packets cross as the kernel has them, large ones whole: cutting them up here would cost the machine its speed. */
  if (ioctl(fd, TUNSETOFFLOAD, TUN_F_CSUM | TUN_F_TSO4 | TUN_F_TSO6) < 0) fail("TUNSETOFFLOAD");
  return fd;
}

/* Where a record of this size may begin: never across the end of the ring. */
static uint64_t place_for(uint64_t at, uint32_t bytes) {
  uint64_t offset = at % RING_BYTES;
  return offset + sizeof(struct record) + bytes > RING_BYTES ? at + (RING_BYTES - offset) : at;
}

static void take_in(struct wire *wire, uint64_t delay_ns) {
  for (;;) {
    uint64_t at = place_for(wire->head, MOST_BYTES);
    if (at + sizeof(struct record) + MOST_BYTES - wire->tail > RING_BYTES) return;
    unsigned char *place = wire->ring + at % RING_BYTES;
    ssize_t bytes = read(wire->from, place + sizeof(struct record), MOST_BYTES);
    if (bytes <= 0) return;
    struct record record = {now_ns() + delay_ns, (uint32_t)bytes};
    memcpy(place, &record, sizeof record);
    wire->head = at + sizeof record + (((uint64_t)bytes + 15) & ~15ull);
  }
}

static int front(struct wire *wire, struct record *record, unsigned char **packet) {
  if (wire->tail == wire->head) return 0;
  uint64_t at = place_for(wire->tail, MOST_BYTES);
  unsigned char *place = wire->ring + at % RING_BYTES;
  memcpy(record, place, sizeof *record);
  *packet = place + sizeof *record;
  wire->tail = at;
  return 1;
}

static void let_out(struct wire *wire) {
  uint64_t now = now_ns();
  struct record record;
  unsigned char *packet;
  while (front(wire, &record, &packet) && record.due_ns <= now) {
    if (write(wire->to, packet, record.bytes) < 0 && errno == EAGAIN) return;
    wire->tail += sizeof record + (((uint64_t)record.bytes + 15) & ~15ull);
  }
}

static uint64_t next_due(struct wire *wire) {
  struct record record;
  unsigned char *packet;
  return front(wire, &record, &packet) ? record.due_ns : UINT64_MAX;
}

int main(int argc, char **argv) {
  if (argc != 6) {
    fprintf(stderr, "delay-forwarder NETNS_A DEVICE_A NETNS_B DEVICE_B DELAY_US\n");
    return 2;
  }
  uint64_t delay_ns = strtoull(argv[5], NULL, 10) * 1000ull;
  int a = open_tun(argv[1], argv[2]);
  int b = open_tun(argv[3], argv[4]);
  struct wire wires[2] = {{.from = a, .to = b}, {.from = b, .to = a}};
  for (int k = 0; k < 2; k++) {
    wires[k].ring = malloc(RING_BYTES);
    if (wires[k].ring == NULL) fail("memory");
  }
  prctl(PR_SET_TIMERSLACK, 1000ul);
  printf("ready\n");
  fflush(stdout);

  for (;;) {
    for (int k = 0; k < 2; k++) let_out(&wires[k]);
    uint64_t due = next_due(&wires[0]), other = next_due(&wires[1]), now = now_ns();
    if (other < due) due = other;
    struct timespec wait = {.tv_sec = 1, .tv_nsec = 0};
    if (due != UINT64_MAX) {
      uint64_t left = due > now ? due - now : 0;
      if (left < 1000000000ull) wait = (struct timespec){.tv_sec = 0, .tv_nsec = (long)left};
    }
    struct pollfd polled[3] = {{a, POLLIN, 0}, {b, POLLIN, 0}, {STDIN_FILENO, POLLIN, 0}};
    if (ppoll(polled, 3, &wait, NULL) < 0 && errno != EINTR) fail("poll");
    if (polled[2].revents & (POLLIN | POLLHUP | POLLERR)) {
      char gone;
      if (read(STDIN_FILENO, &gone, 1) <= 0) return 0;
    }
    for (int k = 0; k < 2; k++) take_in(&wires[k], delay_ns);
  }
}
