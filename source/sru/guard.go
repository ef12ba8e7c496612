package sru

import (
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"slices"
	"syscall"
	"time"

	"tamiz/source"
)

// A Guard decides which addresses may be asked. An address of this machine or of a network that is not
// public is asked only when the operator has named it, as ip:port, and is checked for every connection,
// after its name has been resolved: so neither a name nor a redirect leads there.
type Guard struct {
	Allowed    []string // ip:port of private addresses that may be asked
	Everywhere bool     // any address may be asked: for a person at her own machine
}

// Check refuses an address, as ip:port, that may not be asked.
func (g Guard) Check(address string) error {
	at, err := netip.ParseAddrPort(address)
	if err != nil {
		return fmt.Errorf("%w: %q", source.ErrNotAllowed, address)
	}
	ip := at.Addr().Unmap()
	if g.Everywhere || public(ip) || slices.ContainsFunc(g.Allowed, func(s string) bool {
		a, err := netip.ParseAddrPort(s)
		return err == nil && a.Addr().Unmap() == ip && a.Port() == at.Port()
	}) {
		return nil
	}
	return fmt.Errorf("%w: %s belongs to this machine or to a network that is not public", source.ErrNotAllowed, ip)
}

// reserved are networks that netip does not call private and that are still nobody's public address.
var reserved = []netip.Prefix{
	netip.MustParsePrefix("0.0.0.0/8"), netip.MustParsePrefix("100.64.0.0/10"), netip.MustParsePrefix("192.0.0.0/24"),
	netip.MustParsePrefix("198.18.0.0/15"), netip.MustParsePrefix("240.0.0.0/4"), netip.MustParsePrefix("192.88.99.0/24"),
	netip.MustParsePrefix(
		"192.0.2.0/24",
	), netip.MustParsePrefix("198.51.100.0/24"), netip.MustParsePrefix("203.0.113.0/24"), // for examples
	// In these another address is written, which may lead back: IPv4 in IPv6, translated, tunnelled (RFC 4291, 6052,
	// 8215, 3056, 4380).
	netip.MustParsePrefix(
		"::/96",
	), netip.MustParsePrefix("::ffff:0:0:0/96"), netip.MustParsePrefix("64:ff9b::/96"),
	netip.MustParsePrefix("64:ff9b:1::/48"),
	netip.MustParsePrefix("2002::/16"), netip.MustParsePrefix("2001::/32"),
	netip.MustParsePrefix(
		"fec0::/10",
	), netip.MustParsePrefix("100::/64"), netip.MustParsePrefix("2001:db8::/32"), // of a site, of nobody, for examples
}

func public(ip netip.Addr) bool {
	return ip.IsGlobalUnicast() && !ip.IsPrivate() &&
		!slices.ContainsFunc(reserved, func(p netip.Prefix) bool { return p.Contains(ip) })
}

// client returns an HTTP client that goes nowhere the guard does not allow.
func (g Guard) client() *http.Client {
	dialer := &net.Dialer{
		Timeout: 10 * time.Second,
		Control: func(_, address string, _ syscall.RawConn) error { return g.Check(address) },
	}
	return &http.Client{
		Transport: &http.Transport{
			// No proxy: a guard that looks at the proxy's address guards nothing.
			DialContext: dialer.DialContext, MaxIdleConnsPerHost: maxAtOnce, IdleConnTimeout: time.Minute,
			TLSHandshakeTimeout: 10 * time.Second, ResponseHeaderTimeout: answerTime,
		},
		CheckRedirect: func(r *http.Request, via []*http.Request) error {
			if len(via) >= 5 {
				return fmt.Errorf("%w: more than five redirects", source.ErrBroken)
			}
			if r.URL.Scheme != "http" && r.URL.Scheme != "https" {
				return fmt.Errorf("%w: a redirect to %s", source.ErrNotAllowed, r.URL.Scheme)
			}
			return nil
		},
	}
}
