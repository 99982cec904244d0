package main

import (
	"bufio"
	"bytes"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"strings"
	"sync"
)

// serveBare is the least that a server can do: it sends whatever it is sent to everybody who listens, with nothing but
// net/http.
func serveBare() error {
	h := &hub{listeners: map[chan []byte]bool{}}
	mux := http.NewServeMux()
	mux.HandleFunc("GET /stream", func(w http.ResponseWriter, r *http.Request) {
		mine := h.join()
		defer h.leave(mine)
		w.Header().Set("Content-Type", "text/event-stream")
		control := http.NewResponseController(w)
		fmt.Fprint(w, "data: welcome\n\n")
		control.Flush()
		for {
			select {
			case <-r.Context().Done():
				return
			case event := <-mine:
				w.Write(event)
				control.Flush()
			}
		}
	})
	mux.HandleFunc("POST /send", func(_ http.ResponseWriter, r *http.Request) {
		if event, err := io.ReadAll(r.Body); err == nil {
			h.send(event)
		}
	})
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	fmt.Printf("http://%s\n", listener.Addr())
	return http.Serve(listener, mux)
}

// bareServer is another process of this command that only broadcasts.
type bareServer struct {
	cmd *exec.Cmd
	url string
}

func startBare() (*bareServer, error) {
	self, err := os.Executable()
	if err != nil {
		return nil, err
	}
	cmd := exec.Command(self, "-bare")
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	address, err := bufio.NewReader(out).ReadString('\n')
	return &bareServer{cmd, strings.TrimSpace(address)}, err
}

func (b *bareServer) kill() {
	b.cmd.Process.Kill()
	b.cmd.Wait()
}

func (b *bareServer) broadcast(event []byte) error {
	response, err := http.Post(b.url+"/send", "text/plain", bytes.NewReader(event))
	if err != nil {
		return err
	}
	return response.Body.Close()
}

// hub is who listens to the bare server.
type hub struct {
	mutex     sync.Mutex
	listeners map[chan []byte]bool
}

func (h *hub) join() chan []byte {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	mine := make(chan []byte, 1)
	h.listeners[mine] = true
	return mine
}

func (h *hub) leave(mine chan []byte) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	delete(h.listeners, mine)
}

func (h *hub) send(event []byte) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	for listener := range h.listeners {
		listener <- event
	}
}
