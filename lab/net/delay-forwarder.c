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

#define SLOT_BYTES 9216
/* 8192 packets of 1500 bytes are 100 ms of 1 Gb/s; a power of two. */
#define SLOTS 8192u

struct slot {
  uint64_t due_ns;
  uint16_t bytes;
  unsigned char data[SLOT_BYTES];
};

struct wire {
  int from, to;
  uint32_t head, tail;
  struct slot *slots;
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
  request.ifr_flags = IFF_TUN | IFF_NO_PI;
  strncpy(request.ifr_name, device, IFNAMSIZ - 1);
  if (ioctl(fd, TUNSETIFF, &request) < 0) fail("TUNSETIFF");
  return fd;
}

static void take_in(struct wire *wire, uint64_t delay_ns) {
  while (wire->head - wire->tail < SLOTS) {
    struct slot *slot = &wire->slots[wire->head % SLOTS];
    ssize_t bytes = read(wire->from, slot->data, SLOT_BYTES);
    if (bytes <= 0) return;
    slot->bytes = (uint16_t)bytes;
    slot->due_ns = now_ns() + delay_ns;
    wire->head++;
  }
}

static void let_out(struct wire *wire) {
  uint64_t now = now_ns();
  while (wire->tail != wire->head && wire->slots[wire->tail % SLOTS].due_ns <= now) {
    struct slot *slot = &wire->slots[wire->tail % SLOTS];
    if (write(wire->to, slot->data, slot->bytes) < 0 && errno == EAGAIN) return;
    wire->tail++;
  }
}

static uint64_t next_due(const struct wire *wire) {
  return wire->tail == wire->head ? UINT64_MAX : wire->slots[wire->tail % SLOTS].due_ns;
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
    wires[k].slots = calloc(SLOTS, sizeof(struct slot));
    if (wires[k].slots == NULL) fail("memory");
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
