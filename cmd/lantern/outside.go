package main

import (
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"net"
	"net/netip"
	"net/url"
	"strconv"
	"time"

	"github.com/hashicorp/mdns"
	"github.com/spf13/cobra"

	"vastlantern/web"
	"vastlantern/web/certificates"
)

// outside is the flags that say how others reach the application.
type outside struct {
	tls         bool
	tlsPort     int
	cert        string
	key         string
	base        string
	trusted     []string
	noName      bool
	publish     []string
	certificate *tls.Config // of --cert and --key
}

func (o *outside) flags(cmd *cobra.Command) {
	cmd.Flags().
		BoolVar(&o.tls, "tls", false, "with --lan: encrypt the teacher's side by a certificate authority of your own, "+
			"which your devices install from the page /certificate; the room's pages stay as they are")
	cmd.Flags().IntVar(&o.tlsPort, "tls-port", 0, "the port of the encrypted side (default the one after --port)")
	cmd.Flags().
		StringVar(&o.cert, "cert", "",
			"with --lan: a certificate that devices trust already, as PEM; everything is encrypted by it")
	cmd.Flags().StringVar(&o.key, "key", "", "the key of --cert, as PEM")
	cmd.Flags().
		StringVar(&o.base, "base-url", "",
			"the address under which a reverse proxy hands it on, as https://lantern.example.org")
	cmd.Flags().
		StringSliceVar(&o.trusted, "trusted-proxy", nil,
			"an address or a network of proxies whose X-Forwarded-For tells who asks")
	cmd.Flags().
		StringSliceVar(&o.publish, "publish-to", nil,
			"where a reverse proxy takes what it tells the room's screens, as http://127.0.0.1:8080/publish")
	cmd.Flags().
		BoolVar(&o.noName, "no-name", false, "with --lan: do not answer to "+certificates.Name+" on the local network")
}

func (o *outside) options(data string, lan bool) (*web.Options, error) {
	options := &web.Options{}
	if lan || o.base != "" {
		options.Reach = web.LocalNetwork
	}
	if (o.tls || o.cert != "") && !lan {
		return nil, errors.New("--tls and --cert are for --lan: on this machine alone nothing goes over a network")
	}
	if o.tls && (o.cert != "" || o.base != "") || o.base != "" && o.cert != "" {
		return nil, errors.New("--tls, --cert and --base-url are three ways of encrypting: choose one")
	}
	if (o.cert == "") != (o.key == "") {
		return nil, errors.New("--cert and --key belong together: give both")
	}
	if len(o.trusted) > 0 && o.base == "" {
		return nil, errors.New("--trusted-proxy is for --base-url: without a proxy nobody's word is taken for who asks")
	}
	if o.base != "" {
		base, err := url.Parse(o.base)
		if err != nil || base.Scheme != "http" && base.Scheme != "https" || base.Hostname() == "" ||
			base.Path != "" && base.Path != "/" ||
			base.RawQuery != "" {
			return nil, fmt.Errorf(
				"--base-url: given %q, allowed: http or https, a host, perhaps a port, and no path, as https://lantern.example.org",
				o.base,
			)
		}
		options.Base = base
	}
	for _, text := range o.trusted {
		prefix, err := prefixOf(text)
		if err != nil {
			return nil, fmt.Errorf(
				"--trusted-proxy: given %q, allowed: an address or a network, as 127.0.0.1 or 10.0.0.0/8",
				text,
			)
		}
		options.Trusted = append(options.Trusted, prefix)
	}
	for _, text := range o.publish {
		to, err := url.Parse(text)
		if err != nil || to.Scheme != "http" && to.Scheme != "https" || to.Hostname() == "" {
			return nil, fmt.Errorf(
				"--publish-to: given %q, allowed: an address of a proxy, as http://127.0.0.1:8080/publish",
				text,
			)
		}
		options.Publish = append(options.Publish, to)
	}
	if o.cert != "" {
		pair, err := tls.LoadX509KeyPair(o.cert, o.key)
		if err != nil {
			return nil, fmt.Errorf("--cert and --key: %w", err)
		}
		o.certificate = &tls.Config{MinVersion: tls.VersionTLS12, Certificates: []tls.Certificate{pair}}
	}
	if o.tls {
		authority, err := certificates.Own(data, time.Now)
		if err != nil {
			return nil, err
		}
		options.Authority = authority
	}
	return options, nil
}

func prefixOf(text string) (netip.Prefix, error) {
	if ip, err := netip.ParseAddr(text); err == nil {
		return netip.PrefixFrom(ip, ip.BitLen()), nil
	}
	return netip.ParsePrefix(text)
}

// scheme returns that of the address on this machine.
func (o *outside) scheme() string {
	if o.cert != "" {
		return "https"
	}
	return "http"
}

// securePort returns the port of the encrypted side beside a plain one; 0 for any.
func (o *outside) securePort(plain int) int {
	switch {
	case o.tlsPort != 0:
		return o.tlsPort
	case plain == 0:
		return 0
	}
	return plain + 1
}

// announce answers to the machine's name on the local network (RFC 6762), so that an address that was written down
// holds when the machine's number is another one. It gives how to stop. Without it everything works by number.
func (o *outside) announce(lan bool, options *web.Options, tell io.Writer) (stop func()) {
	stop = func() {}
	if !lan || o.noName {
		return stop
	}
	addresses := web.Addresses()
	if len(addresses) == 0 {
		return stop
	}
	zone, err := named(options.PlainPort, addresses)
	if err == nil {
		var server *mdns.Server
		if server, err = mdns.NewServer(&mdns.Config{Zone: zone}); err == nil {
			return func() { _ = server.Shutdown() } // the program ends
		}
	}
	fmt.Fprintf(tell, "The name %s is not announced: %v\n", certificates.Name, err)
	return stop
}

// named returns what is answered to who asks for the machine's name, or for pages on the local network.
func named(port string, addresses []string) (*mdns.MDNSService, error) {
	number, err := strconv.Atoi(port)
	if err != nil {
		return nil, err
	}
	var ips []net.IP
	for _, address := range addresses {
		ips = append(ips, net.ParseIP(address))
	}
	return mdns.NewMDNSService(
		"Vast Lantern",
		"_http._tcp",
		"local.",
		certificates.Name+".",
		number,
		ips,
		[]string{"path=/"},
	)
}
