package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"strconv"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/demo"
	"vastlantern/web"
)

// serving is the flags that serve and demo share.
type serving struct {
	data      string
	port      int
	clockRate float64
	clockFrom string
}

func (s *serving) flags(cmd *cobra.Command, data string) {
	cmd.Flags().StringVar(&s.data, "data", data, "the data file; it is made where there is none")
	cmd.Flags().IntVar(&s.port, "port", 7777, "the port; where it is taken, another one is")
	cmd.Flags().Float64Var(&s.clockRate, "clock-rate", 1, "for try-outs: seconds on the application's clock for each real second, 1 to 100")
	cmd.Flags().StringVar(&s.clockFrom, "clock-from", "", "for try-outs: the RFC 3339 time from which the clock runs at its rate (default now)")
}

func (s *serving) clock() (*studio.Clock, error) {
	if s.clockRate < 1 || s.clockRate > 100 {
		return nil, fmt.Errorf("--clock-rate: given %v, allowed: 1 to 100", s.clockRate)
	}
	from := time.Now()
	if s.clockFrom != "" {
		var err error
		if from, err = time.Parse(time.RFC3339Nano, s.clockFrom); err != nil || from.After(time.Now()) {
			return nil, fmt.Errorf("--clock-from: given %q, allowed: a date and time that is past, as 2026-03-02T18:30:00+01:00", s.clockFrom)
		}
	}
	if s.clockRate == 1 {
		return studio.NewClock(), nil
	}
	return studio.NewQuickClock(from, s.clockRate), nil
}

func serveCommand() *cobra.Command {
	var s serving
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "Serve the application on this machine",
		Long:  "Serves the application on this machine only, and prints its address. Ends on Ctrl-C; a class that is being led can be picked up after the next start.",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return s.run(cmd, func(*store.Store, *studio.Clock) error { return nil })
		},
	}
	s.flags(cmd, "data/lantern.db")
	return cmd
}

func demoCommand() *cobra.Command {
	var s serving
	cmd := &cobra.Command{
		Use:   "demo",
		Short: "Serve the application with invented demo data",
		Long:  "Serves the application with an invented teacher's groups, plans and taught classes, in a data file of its own.",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return s.run(cmd, func(st *store.Store, clock *studio.Clock) error { return demo.Load(st, clock.Now()) })
		},
	}
	s.flags(cmd, "data/demo.db")
	return cmd
}

func (s *serving) run(cmd *cobra.Command, prepare func(*store.Store, *studio.Clock) error) error {
	clock, err := s.clock()
	if err != nil {
		return err
	}
	if err := os.MkdirAll(filepath.Dir(s.data), 0o700); err != nil {
		return fmt.Errorf("the folder of the data file cannot be made: %w", err)
	}
	st, err := store.Open(s.data)
	if err != nil {
		return err
	}
	defer st.Close()
	if err := prepare(st, clock); err != nil {
		return err
	}
	handler, err := web.Handler(studio.New(st, clock))
	if err != nil {
		return err
	}
	listener, err := listen(s.port, cmd.ErrOrStderr())
	if err != nil {
		return err
	}
	fmt.Fprintf(cmd.OutOrStdout(), "Vast Lantern is open at http://%s\nCtrl-C ends it.\n", listener.Addr())
	ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	return serveUntil(ctx, listener, handler)
}

// listen takes the port on the loopback address, or says that it is taken and takes another.
func listen(port int, tell io.Writer) (net.Listener, error) {
	address := net.JoinHostPort("127.0.0.1", strconv.Itoa(port))
	listener, err := net.Listen("tcp", address)
	if errors.Is(err, syscall.EADDRINUSE) {
		fmt.Fprintf(tell, "Port %d is in use by another program; another port is taken.\n", port)
		return net.Listen("tcp", "127.0.0.1:0")
	}
	return listener, err
}

// serveUntil serves until the context ends. Streams stay open as long as their screens, so they are cut.
func serveUntil(ctx context.Context, listener net.Listener, handler http.Handler) error {
	server := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second}
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
		return server.Close()
	}
}
