// Package cluster runs a PostgreSQL of its own on loopback, from Debian's packages, for the demo, for
// development and for tests. The system's own cluster is left alone.
package cluster

import (
	"bytes"
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"sort"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// A Cluster is a running PostgreSQL.
type Cluster struct {
	URL  string // of its database
	log  string
	bin  string
	data string
	args []string
	of   *syscall.Credential

	mu      sync.Mutex
	cmd     *exec.Cmd
	done    chan struct{} // closed when cmd has ended
	stopped bool
}

// Start begins a PostgreSQL whose data lie in dir, which is made when it is not there. With scratch
// it does not wait for the disk: for data that nobody will miss.
func Start(ctx context.Context, dir string, scratch bool) (*Cluster, error) {
	bin, err := binaries()
	if err != nil {
		return nil, err
	}
	if dir, err = filepath.Abs(dir); err != nil {
		return nil, err
	}
	owner, err := owner()
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, err
	}
	data, secret := filepath.Join(dir, "data"), filepath.Join(dir, "secret")
	if _, err := os.Stat(filepath.Join(data, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		if err := create(ctx, bin, data, secret, owner); err != nil {
			return nil, err
		}
	}
	password, err := os.ReadFile(secret)
	if err != nil {
		return nil, err
	}
	port, err := freePort()
	if err != nil {
		return nil, err
	}
	args := []string{
		"-D",
		data,
		"-p",
		strconv.Itoa(port),
		"-c",
		"listen_addresses=127.0.0.1",
		"-c",
		"unix_socket_directories=",
		"-c",
		"shared_buffers=256MB",
		"-c",
		"max_wal_size=2GB",
	}
	if scratch {
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off")
	}
	c := &Cluster{URL: fmt.Sprintf("postgres://tamiz:%s@127.0.0.1:%d/postgres", strings.TrimSpace(string(password)), port),
		log: filepath.Join(dir, "postgres.log"), bin: filepath.Join(bin, "postgres"), data: data, args: args, of: owner}
	if err := c.begin(); err != nil {
		return nil, err
	}
	if err := c.ready(ctx); err != nil {
		c.Stop()
		return nil, err
	}
	return c, nil
}

// begin starts the server; it does not wait until it answers.
func (c *Cluster) begin() error {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.stopped {
		return errStopped
	}
	out, err := os.OpenFile(c.log, os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	defer out.Close()
	cmd, done := exec.Command(c.bin, c.args...), make(chan struct{})
	cmd.Dir, cmd.Stdout, cmd.Stderr = c.data, out, out
	// A process that dies takes its database with it. The signal comes when the thread that started the
	// child ends, so that thread is kept.
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: c.of, Setpgid: true, Pdeathsig: syscall.SIGQUIT}
	started := make(chan error)
	go func() {
		runtime.LockOSThread()
		if err := cmd.Start(); err != nil {
			started <- err
			return
		}
		started <- nil
		_ = cmd.Wait()
		close(done)
	}()
	if err := <-started; err != nil {
		return err
	}
	c.cmd, c.done = cmd, done
	return nil
}

var errStopped = errors.New("the database was stopped")

// now returns the server that runs, or ran last.
func (c *Cluster) now() (*exec.Cmd, chan struct{}) {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.cmd, c.done
}

// Keep starts the server again whenever it dies, at the same address, until Stop is called or the context ends.
// told hears of it.
func (c *Cluster) Keep(ctx context.Context, told func(error)) {
	for {
		_, done := c.now()
		select {
		case <-ctx.Done():
			return
		case <-done:
		}
		err := c.begin()
		if errors.Is(err, errStopped) {
			return
		}
		if err == nil {
			err = c.ready(ctx)
		}
		told(err)
		if err != nil {
			// What is left of the one that died may still hold its memory.
			select {
			case <-ctx.Done():
				return
			case <-time.After(time.Second):
			}
		}
	}
}

// Stop ends the database and waits until it has ended.
func (c *Cluster) Stop() {
	c.mu.Lock()
	c.stopped = true
	cmd, done := c.cmd, c.done
	c.mu.Unlock()
	_ = cmd.Process.Signal(syscall.SIGINT) // fast shutdown
	select {
	case <-done:
	case <-time.After(20 * time.Second):
		_ = cmd.Process.Kill()
		<-done
	}
}

// Kill ends the server without warning, as an accident would.
func (c *Cluster) Kill() {
	cmd, done := c.now()
	_ = cmd.Process.Kill()
	<-done
}

func (c *Cluster) ready(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, 60*time.Second)
	defer cancel()
	_, done := c.now()
	for {
		conn, err := pgx.Connect(ctx, c.URL)
		if err == nil {
			return conn.Close(ctx)
		}
		select {
		case <-done:
			tail, _ := os.ReadFile(c.log)
			return fmt.Errorf("PostgreSQL ended at once; the end of %s:\n%s", c.log, tail[max(0, len(tail)-2000):])
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL does not answer: %w", err)
		case <-time.After(50 * time.Millisecond):
		}
	}
}

func create(ctx context.Context, bin, data, secret string, owner *syscall.Credential) error {
	random := make([]byte, 16)
	if _, err := rand.Read(random); err != nil {
		return err
	}
	if err := os.WriteFile(secret, []byte(hex.EncodeToString(random)), 0o600); err != nil {
		return err
	}
	if err := os.MkdirAll(data, 0o700); err != nil {
		return err
	}
	if owner != nil {
		for _, path := range []string{data, secret} {
			if err := os.Chown(path, int(owner.Uid), int(owner.Gid)); err != nil {
				return err
			}
		}
	}
	cmd := exec.CommandContext(
		ctx,
		filepath.Join(bin, "initdb"),
		"-D",
		data,
		"-U",
		"tamiz",
		"-E",
		"UTF8",
		"--locale=C.UTF-8",
		"--auth=scram-sha-256",
		"--pwfile="+secret,
		"--no-sync",
	)
	cmd.Dir = data
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: owner}
	var out bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &out
	if err := cmd.Run(); err != nil {
		return fmt.Errorf("initdb: %w\n%s", err, &out)
	}
	return nil
}

// Folder returns a folder for a cluster: the wanted one or, when run as root where the owner of the
// database could not reach it, one of the same name under the folder for temporary files.
func Folder(wanted string) (string, error) {
	wanted, err := filepath.Abs(wanted)
	if err != nil || os.Getuid() != 0 {
		return wanted, err
	}
	for dir := filepath.Dir(wanted); ; dir = filepath.Dir(dir) {
		if info, err := os.Stat(dir); err == nil && info.Mode().Perm()&0o001 == 0 {
			return filepath.Join(os.TempDir(), "tamiz"+strings.ReplaceAll(wanted, "/", "-")), nil
		}
		if dir == filepath.Dir(dir) {
			return wanted, nil
		}
	}
}

// owner returns whom the database runs as: PostgreSQL refuses to run as root.
func owner() (*syscall.Credential, error) {
	if os.Getuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("PostgreSQL does not run as root, and there is no user postgres: %w", err)
	}
	uid, _ := strconv.ParseUint(u.Uid, 10, 32)
	gid, _ := strconv.ParseUint(u.Gid, 10, 32)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

// binaries returns the folder of the newest PostgreSQL that is installed.
func binaries() (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/postgres")
	sort.Slice(found, func(i, j int) bool { return version(found[i]) < version(found[j]) })
	if len(found) == 0 {
		return "", errors.New("PostgreSQL is not installed (Debian's package postgresql)")
	}
	return filepath.Dir(found[len(found)-1]), nil
}

func version(path string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(path))))
	return n
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}
