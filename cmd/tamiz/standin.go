package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"tamiz/demo"
	"tamiz/demo/mailbox"
	"tamiz/demo/scenario"
	"tamiz/source/standin"
)

const standinListen = "127.0.0.1:8210"

func standinCommand() *cobra.Command {
	var address string
	var scale int
	var seed uint64
	c := &cobra.Command{
		Use: "standin", Short: "Run the made-up sources alone, as SRU servers", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if err := checkScale(scale); err != nil {
				return err
			}
			if err := checkListen(address); err != nil {
				return err
			}
			ctx, stop := untilStopped()
			defer stop()
			s, err := startStandins(address, scale, seed)
			if err != nil {
				return err
			}
			for _, src := range s.sources {
				fmt.Fprintln(c.OutOrStdout(), s.url(src))
			}
			<-ctx.Done()
			return s.stop()
		},
	}
	c.Flags().StringVar(&address, "listen", standinListen, "the address to listen on, of this machine alone")
	addWorldFlags(c, &scale, &seed)
	return c
}

// standins are the made-up sources, listening.
type standins struct {
	literature *demo.Literature
	sources    []*standin.Collection
	address    string
	server     *http.Server
	mail       *mailbox.Mailbox
	ended      chan error
}

// startStandins makes the invented literature and serves it. The default address gives way to a free port
// when it is taken.
func startStandins(address string, scale int, seed uint64) (*standins, error) {
	l, err := net.Listen("tcp", address)
	if errors.Is(err, syscall.EADDRINUSE) && address == standinListen {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return nil, err
	}
	literature := demo.NewLiterature(seed, scale)
	s := &standins{
		literature: literature,
		sources:    standin.Sources(literature),
		address:    l.Addr().String(),
		ended:      make(chan error, 1),
	}
	if s.mail, err = mailbox.Listen("127.0.0.1:0"); err != nil {
		return nil, errors.Join(err, l.Close())
	}
	pages := http.NewServeMux()
	pages.Handle("/mail", s.mail)
	pages.Handle("/", standin.Handler(s.sources...))
	s.server = &http.Server{Handler: pages, ReadHeaderTimeout: 10 * time.Second}
	go func() { s.ended <- s.server.Serve(l) }()
	return s, nil
}

func (s *standins) url(c *standin.Collection) string { return "http://" + s.address + "/" + c.Name }

// world returns the literature and its sources, for the demo review.
func (s *standins) world() scenario.World {
	return scenario.World{Literature: s.literature, Collections: s.sources, Address: s.url}
}

func (s *standins) stop() error {
	ctx, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	err := errors.Join(s.server.Shutdown(ctx), s.mail.Close())
	if errors.Is(err, context.DeadlineExceeded) {
		err = s.server.Close()
	}
	if served := <-s.ended; !errors.Is(served, http.ErrServerClosed) {
		err = errors.Join(err, served)
	}
	return err
}
