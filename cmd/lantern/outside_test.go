package main

import (
	"path/filepath"
	"strings"
	"testing"

	"github.com/miekg/dns"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/web"
)

// What cannot go together is told, with what would.
func TestHowOthersReachIt(t *testing.T) {
	data := filepath.Join(t.TempDir(), "x.db")
	for says, args := range map[string][]string{
		"--tls and --cert are for --lan":                    {"--tls"},
		"choose one":                                        {"--lan", "--tls", "--base-url", "https://lantern.example.org"},
		"give both":                                         {"--lan", "--cert", "a.pem"},
		"--trusted-proxy is for --base-url":                 {"--lan", "--trusted-proxy", "10.0.0.1"},
		`--publish-to: given "lantern"`:                     {"--publish-to", "lantern"},
		`--base-url: given "lantern"`:                       {"--base-url", "lantern"},
		"no path":                                           {"--base-url", "https://example.org/lantern"},
		`--trusted-proxy: given "me"`:                       {"--base-url", "https://example.org", "--trusted-proxy", "me"},
		"--cert and --key: open nowhere.pem":                {"--lan", "--cert", "nowhere.pem", "--key", "nowhere.pem"},
		"for that it needs a passcode. Set one":             {"--base-url", "https://example.org"},
		"needs a passcode. Set one first: lantern passcode": {"--lan", "--tls"},
	} {
		_, errs, code := run(t, "", append([]string{"serve", "--data", data, "--port", "0"}, args...)...)
		assert.Equal(t, 1, code, says)
		assert.Contains(t, errs, says)
	}
	o := outside{base: "https://lantern.example.org", trusted: []string{"127.0.0.1", "10.0.0.0/8"}}
	options, err := o.options(data, false)
	require.NoError(t, err)
	assert.Equal(t, web.LocalNetwork, options.Reach, "behind a proxy the teacher's side asks for the passcode")
	assert.Equal(t, "127.0.0.1/32", options.Trusted[0].String())
	assert.Equal(t, 7778, o.securePort(7777))
	assert.Zero(t, o.securePort(0))

	var told strings.Builder
	s := serving{outside: o}
	s.printAddresses(&told, options)
	assert.NotContains(t, told.String(), "Warning")
	options.Trusted = nil
	s.printAddresses(&told, options)
	assert.Contains(t, told.String(), "Warning: all requests seem to come from the proxy")
}

// Who asks for lantern.local by multicast DNS gets the machine's addresses; who looks for pages finds it with its port.
func TestTheNameOnTheLocalNetwork(t *testing.T) {
	zone, err := named("7777", []string{"192.168.1.5", "10.0.0.7"})
	require.NoError(t, err)
	var found []string
	for _, record := range zone.Records(dns.Question{Name: "lantern.local.", Qtype: dns.TypeA, Qclass: dns.ClassINET}) {
		found = append(found, record.(*dns.A).A.String())
	}
	assert.Equal(t, []string{"192.168.1.5", "10.0.0.7"}, found)
	service := zone.Records(dns.Question{Name: "_http._tcp.local.", Qtype: dns.TypePTR, Qclass: dns.ClassINET})
	require.NotEmpty(t, service)
	assert.Contains(t, service[1].String(), "7777")
	assert.Empty(t, zone.Records(dns.Question{Name: "printer.local.", Qtype: dns.TypeA, Qclass: dns.ClassINET}))
}
