package studio

import (
	"os"
	"strings"
	"time"

	"golang.org/x/sys/unix"
)

// uptime counts while the machine sleeps too: CLOCK_BOOTTIME of clock_gettime(2). Go's own monotonic clock stands
// still then.
func uptime() time.Duration {
	var t unix.Timespec
	if err := unix.ClockGettime(unix.CLOCK_BOOTTIME, &t); err != nil {
		return time.Since(started)
	}
	return time.Duration(t.Nano())
}

// bootID names the start of the machine from which uptime counts (random(4)); empty if it is not known.
func bootID() string {
	id, err := os.ReadFile("/proc/sys/kernel/random/boot_id")
	if err != nil {
		return ""
	}
	return strings.TrimSpace(string(id))
}
