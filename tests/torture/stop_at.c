/* Ends the process before its n-th call that writes: what a power cut or a kill at that moment leaves behind. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <fcntl.h>
#include <signal.h>
#include <stdarg.h>
#include <stdio.h>
#include <sys/types.h>
#include <unistd.h>

static long left = -1, made = 0;

void stop_at(long n) { left = n; made = 0; }
long calls_made(void) { return made; }

static void before_a_write(void) {
    if (left < 0) return;
    made++;
    if (left > 0 && --left == 0) kill(getpid(), SIGKILL);
}

#define REAL(type, name, ...) ((type (*)(__VA_ARGS__))dlsym(RTLD_NEXT, #name))

ssize_t write(int fd, const void *b, size_t n) { if (fd > 2) before_a_write(); return REAL(ssize_t, write, int, const void *, size_t)(fd, b, n); }
ssize_t pwrite(int fd, const void *b, size_t n, off_t o) { before_a_write(); return REAL(ssize_t, pwrite, int, const void *, size_t, off_t)(fd, b, n, o); }
ssize_t pwrite64(int fd, const void *b, size_t n, off64_t o) { before_a_write(); return REAL(ssize_t, pwrite64, int, const void *, size_t, off64_t)(fd, b, n, o); }
int fsync(int fd) { before_a_write(); return REAL(int, fsync, int)(fd); }
int fdatasync(int fd) { before_a_write(); return REAL(int, fdatasync, int)(fd); }
int ftruncate(int fd, off_t n) { before_a_write(); return REAL(int, ftruncate, int, off_t)(fd, n); }
int ftruncate64(int fd, off64_t n) { before_a_write(); return REAL(int, ftruncate64, int, off64_t)(fd, n); }
int rename(const char *a, const char *b) { before_a_write(); return REAL(int, rename, const char *, const char *)(a, b); }
int link(const char *a, const char *b) { before_a_write(); return REAL(int, link, const char *, const char *)(a, b); }
int unlink(const char *a) { before_a_write(); return REAL(int, unlink, const char *)(a); }
int unlinkat(int d, const char *a, int f) { before_a_write(); return REAL(int, unlinkat, int, const char *, int)(d, a, f); }
