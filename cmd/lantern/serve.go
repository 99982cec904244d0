package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"runtime/debug"
	"strconv"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/demo"
	"vastlantern/studio/desk"
	"vastlantern/web"
	"vastlantern/web/certificates"
)

// serving is the flags that serve and demo share.
type serving struct {
	data      string
	port      int
	lan       bool
	verbose   bool
	clockRate float64
	clockFrom string
	outside   outside
	usual     bool                 // the data file is where the system keeps such data
	ready     func(address string) // is told when it answers; nil if nobody is
}

func (s *serving) flags(cmd *cobra.Command, data string) {
	cmd.Flags().StringVar(&s.data, "data", data, "the data file; it is made where there is none")
	cmd.Flags().IntVar(&s.port, "port", 7777, "the port; where it is taken, another one is")
	cmd.Flags().
		BoolVar(&s.lan, "lan", false, "open it to the local network: the room's pages to whoever has the code, the rest to "+
			"whoever has the passcode")
	s.outside.flags(cmd)
	cmd.Flags().BoolVar(&s.verbose, "verbose", false, "write a line for every request; else only for those that failed")
	cmd.Flags().
		Float64Var(&s.clockRate, "clock-rate", 1,
			"for try-outs: seconds on the application's clock for each real second, 1 to 100")
	cmd.Flags().
		StringVar(&s.clockFrom, "clock-from", "",
			"for try-outs: the RFC 3339 time from which the clock runs at its rate (default now)")
}

func (s *serving) clock() (*studio.Clock, error) {
	if s.clockRate < 1 || s.clockRate > 100 {
		return nil, fmt.Errorf("--clock-rate: given %v, allowed: 1 to 100", s.clockRate)
	}
	from := time.Now()
	if s.clockFrom != "" {
		var err error
		if from, err = time.Parse(time.RFC3339Nano, s.clockFrom); err != nil || from.After(time.Now()) {
			return nil, fmt.Errorf(
				"--clock-from: given %q, allowed: a date and time that is past, as 2026-03-02T18:30:00+01:00",
				s.clockFrom,
			)
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
		Long: "Serves the application on this machine only, and prints its address. Ends on Ctrl-C; a class that is being " +
			"led can be picked up after the next start.\n\n" +
			"With --lan it is open to the local network: phones and a second screen can show the room, and a device that " +
			"signs in with the passcode can lead. What is sent is not encrypted, so use a network of your own, or --tls, " +
			"which docs/serving.md explains. Set the passcode first: lantern passcode.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return s.run(cmd, func(*store.Store, *studio.Clock) error { return nil })
		},
	}
	s.flags(cmd, defaultData)
	return cmd
}

func demoCommand() *cobra.Command {
	var s serving
	cmd := &cobra.Command{
		Use:   "demo",
		Short: "Serve the application with invented demo data",
		Long: "Serves the application with an invented teacher's groups, plans and taught classes, in a data file of its " +
			"own.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return s.run(cmd, func(st *store.Store, clock *studio.Clock) error {
				return demo.Load(cmd.Context(), st, clock.Now())
			})
		},
	}
	s.flags(cmd, demoData)
	return cmd
}

func (s *serving) run(cmd *cobra.Command, prepare func(*store.Store, *studio.Clock) error) error {
	if s.verbose {
		slog.SetLogLoggerLevel(slog.LevelDebug)
	}
	clock, err := s.clock()
	if err != nil {
		return err
	}
	st, err := openAt(cmd, s.data, "lantern "+cmd.Name(), s.usual || s.data == demoData)
	if err != nil {
		return err
	}
	defer st.Close()
	debug.SetGCPercent(garbage)
	if err := prepare(st, clock); err != nil {
		return err
	}
	st.KeepReserve()
	application := desk.New(st, clock)
	if s.clockFrom == "" {
		if err := application.Classes.Resume(cmd.Context()); err != nil {
			return err
		}
	}
	options, err := s.options(cmd.Context(), application)
	if err != nil {
		return err
	}
	host := "127.0.0.1"
	if s.lan {
		host = "0.0.0.0"
	}
	listener, err := listen(host, s.port, cmd.ErrOrStderr())
	if err != nil {
		return err
	}
	open := []entrance{{listener, s.outside.certificate}}
	_, port, _ := net.SplitHostPort(listener.Addr().String())
	options.PlainPort = port
	if options.Authority != nil {
		secure, err := listen(host, s.outside.securePort(s.port), cmd.ErrOrStderr())
		if err != nil {
			return err
		}
		open = append(open, entrance{secure, options.Authority.Config()})
		_, options.SecurePort, _ = net.SplitHostPort(secure.Addr().String())
	}
	working, giveUp := context.WithCancel(context.WithoutCancel(cmd.Context()))
	defer giveUp()
	handler, err := web.Handler(working, application, *options)
	if err != nil {
		return err
	}
	ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	var keeping sync.WaitGroup
	keeping.Go(func() { application.Keep(ctx) })
	for _, to := range options.Publish {
		keeping.Go(func() { web.Publish(ctx, application, to) })
	}
	found := s.outside.announce(s.lan, options, cmd.ErrOrStderr())
	defer found()
	s.printAddresses(cmd.OutOrStdout(), options)
	address := s.outside.scheme() + "://" + net.JoinHostPort("127.0.0.1", port)
	st.ServedAt(address)
	if s.ready != nil {
		s.ready(address) // what comes before the first answer waits in the listener
	}
	err = serveUntil(ctx, stop, open, handler, *options)
	stop()
	giveUp()
	handler.Wait()
	keeping.Wait()
	return err
}

// options returns from where and how the application will be reached. Nobody opens it to others without a passcode.
func (s *serving) options(ctx context.Context, application *desk.Desk) (*web.Options, error) {
	options, err := s.outside.options(s.data, s.lan)
	if err != nil || options.Reach == web.ThisMachine {
		return options, err
	}
	set, err := application.Access.HasPasscode(ctx)
	if err == nil && !set {
		err = fmt.Errorf(
			"this opens the application to others, and for that it needs a passcode. Set one first: lantern passcode --data %s",
			s.data,
		)
	}
	return options, err
}

func (s *serving) printAddresses(out io.Writer, options *web.Options) {
	scheme := s.outside.scheme()
	fmt.Fprintf(out, "Vast Lantern is open at %s://%s\n", scheme, net.JoinHostPort("127.0.0.1", options.PlainPort))
	switch {
	case options.Base != nil:
		fmt.Fprintf(out, "Behind a proxy, with the passcode: %s\n", options.Base)
		if len(options.Trusted) == 0 {
			fmt.Fprintln(
				out,
				"Warning: all requests seem to come from the proxy, so wrong passcodes count for everybody together. Name the "+
					"proxy with --trusted-proxy.",
			)
		}
	case options.Authority != nil:
		for _, host := range append([]string{certificates.Name}, web.Addresses()...) {
			if ip := net.ParseIP(host); ip == nil || options.Authority.VouchesFor(ip) {
				fmt.Fprintf(
					out,
					"On the local network, with the passcode: https://%s\n",
					net.JoinHostPort(host, options.SecurePort),
				)
			}
		}
		fmt.Fprintf(
			out,
			"A device of yours trusts this machine after http://%s/certificate was opened on it\n",
			net.JoinHostPort(certificates.Name, options.PlainPort),
		)
		fmt.Fprintf(out, "SHA-256 of what it installs: %s\n", options.Authority.Fingerprint())
	case s.lan:
		for _, address := range web.Addresses() {
			fmt.Fprintf(
				out,
				"On the local network, with the passcode: %s://%s\n",
				scheme,
				net.JoinHostPort(address, options.PlainPort),
			)
		}
	}
	fmt.Fprintln(out, "Ctrl-C ends it.")
}

// listen takes the port, or says that it is taken and takes another.
func listen(host string, port int, out io.Writer) (net.Listener, error) {
	listener, err := net.Listen("tcp", net.JoinHostPort(host, strconv.Itoa(port)))
	if errors.Is(err, syscall.EADDRINUSE) {
		fmt.Fprintf(out, "Port %d is in use by another program; another port is taken.\n", port)
		return net.Listen("tcp", net.JoinHostPort(host, "0"))
	}
	return listener, err
}

// entrance is where the application is served; without a configuration of TLS what is sent is not encrypted.
type entrance struct {
	net.Listener
	tls *tls.Config
}

// garbage is the garbage-collection target (GOGC): how much may be allocated beyond what is live, in percent. An
// adjustment allocates 3 MB, and with a small heap every third one would start a collection.
const garbage = 200

// stopTime is how long an answer may take after the program was told to end: long enough for most imports. What is
// given up after it changes nothing.
const stopTime = 15 * time.Second

// serveUntil serves until the context ends, or one of the entrances fails. What was asked before the end is answered.
func serveUntil(ctx context.Context, stop func(), open []entrance, handler http.Handler, options web.Options) error {
	failed := make(chan error, len(open))
	var serving sync.WaitGroup
	defer serving.Wait()
	var servers []*web.Server
	for _, one := range open {
		server := web.NewServer(handler, options)
		servers = append(servers, server)
		defer server.Close()
		serving.Go(func() {
			if one.tls != nil {
				failed <- server.ServeTLS(one.Listener, one.tls)
				return
			}
			failed <- server.Serve(one.Listener)
		})
	}
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	stop() // a second Ctrl-C ends it at once
	within, done := context.WithTimeout(context.WithoutCancel(ctx), stopTime)
	defer done()
	for _, server := range servers {
		if err := server.Shutdown(within); err != nil {
			slog.Warn("an answer that took too long was cut off at the end", "error", err)
		}
	}
	return nil
}
