package stage

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"sync/atomic"
	"syscall"
	"time"
)

// Proxy is nginx with the configuration that the project comes with, on ports and in a folder of its own.
type Proxy struct {
	URL     string
	Publish string // for --publish-to
	cmd     *exec.Cmd
}

// NewProxy finds ports for a proxy and writes its configuration; upstream is the host and port of the program that it
// will be before.
func NewProxy(folder, upstream string) (*Proxy, error) {
	_, file, _, _ := runtime.Caller(0)
	text, err := os.ReadFile(filepath.Join(filepath.Dir(file), "..", "..", "deploy", "nginx.conf"))
	if err != nil {
		return nil, err
	}
	front, err := FreeAddress()
	if err != nil {
		return nil, err
	}
	back, err := FreeAddress()
	if err != nil {
		return nil, err
	}
	conf := string(text)
	for _, change := range [][2]string{
		{"listen 80 ", "listen " + front + " "},
		{"127.0.0.1:8081;", back + ";"},
		{"server 127.0.0.1:7777;", "server " + upstream + ";"},
		{"pid /run/", "pid " + folder + "/"},
		{"/var/log/nginx/", folder + "/"},
		{"/var/lib/nginx/", folder + "/"},
		{"rate=10r/s", "rate=10000r/s"},     // all screens of a trial come from one address
		{"worker_rlimit_nofile 65536;", ""}, // what this process may have
		{"worker_connections 32768;", "worker_connections 16384;"},
	} {
		if !strings.Contains(conf, change[0]) {
			return nil, fmt.Errorf("deploy/nginx.conf has no %q any more", change[0])
		}
		conf = strings.ReplaceAll(conf, change[0], change[1])
	}
	if os.Getuid() == 0 { // its workers read the folder too
		conf = "user root;\n" + conf
	}
	path := filepath.Join(folder, "nginx.conf")
	if err := os.WriteFile(path, []byte(conf), 0o600); err != nil {
		return nil, err
	}
	cmd := exec.Command("nginx", "-p", folder, "-c", path, "-e", filepath.Join(folder, "error.log"), "-g", "daemon off;")
	cmd.Stderr = os.Stderr
	EndWithParent(cmd)
	return &Proxy{"http://" + front, "http://" + back + "/publish", cmd}, nil
}

// Start starts it, and waits until it answers.
func (p *Proxy) Start() error {
	if err := p.cmd.Start(); err != nil {
		return err
	}
	for range 200 {
		if response, err := http.Get(p.URL + "/api/clock"); err == nil {
			response.Body.Close()
			return nil
		}
		time.Sleep(50 * time.Millisecond)
	}
	p.Stop()
	return errors.New("the proxy does not answer")
}

// Stop ends it with its workers.
func (p *Proxy) Stop() {
	if p.cmd.Process != nil && p.cmd.ProcessState == nil {
		_ = p.cmd.Process.Signal(syscall.SIGTERM)
		_ = p.cmd.Wait()
	}
}

// Processes returns the numbers of it and its workers.
func (p *Proxy) Processes() []int {
	all := []int{p.cmd.Process.Pid}
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/task/%d/children", all[0], all[0]))
	if err != nil {
		return all
	}
	for _, child := range strings.Fields(string(text)) {
		var number int
		if _, err := fmt.Sscan(child, &number); err == nil {
			all = append(all, number)
		}
	}
	return all
}

// lastPort is the last one that FreeAddress has given, or where it begins to look: a process looks at a place of its
// own. It gives every second one, since a program with --tls takes the next one too.
var lastPort = atomic.Int32{}

// FreeAddress returns an address of this machine on which nobody listens. Its port lies below those from which the
// system takes the ports of outgoing connections (from 32768 on), so that a program that ends finds it free when it
// starts again.
func FreeAddress() (string, error) {
	const from, below = 20_000, 32_000
	lastPort.CompareAndSwap(0, int32(os.Getpid()*97%(below-from)))
	for range below - from {
		address := fmt.Sprintf("127.0.0.1:%d", from+int(lastPort.Add(2))%(below-from))
		if listener, err := net.Listen("tcp", address); err == nil {
			return address, listener.Close()
		}
	}
	return "", errors.New("no port is free")
}
