package stage

import (
	"os/exec"
	"syscall"
)

// EndWithParent has a program end when this process does, also by a panic or by go test's own time limit, when nobody
// is left to stop it. The system watches the thread that started it: Go keeps those of a process that locks none.
func EndWithParent(cmd *exec.Cmd) {
	cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
}
