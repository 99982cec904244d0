//go:build !linux

package store

import "os"

// locksInodes is false: these systems have no lock that SQLite does not give up by closing the file. The lock file has
// to do.
const locksInodes = false

func lockInode(*os.File) (taken bool, err error) { return true, nil }
