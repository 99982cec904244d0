package main

import "golang.org/x/sys/unix"

// limitMemory gives a process no more memory than so many bytes.
func limitMemory(process int, bytes uint64) error {
	return unix.Prlimit(process, unix.RLIMIT_DATA, &unix.Rlimit{Cur: bytes, Max: bytes}, nil)
}
