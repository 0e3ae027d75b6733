package main

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"runtime"
	"runtime/pprof"
	"strconv"
	"strings"
	"syscall"

	"brevium/core/brief"
	"brevium/demo"
	"brevium/internal/browser"
	"brevium/store"
	"brevium/web/desk"
)

// server is the process that answers.
type server struct {
	cmd     *exec.Cmd
	address string
	ask     io.WriteCloser
	told    *bufio.Reader
}

// holds is what the server uses and holds.
type holds struct {
	cpu             float64 // seconds so far
	heap, most      int64   // bytes after a collection, and of the process at the most
	files, routines int
}

func (h holds) String() string {
	return fmt.Sprintf("%d MB, %d open files, %d goroutines", h.heap>>20, h.files, h.routines)
}

func startServer(dir string, boxes int, profile string) *server {
	self, err := os.Executable()
	check(err)
	if profile != "" {
		profile, err = filepath.Abs(profile)
		check(err)
	}
	s := &server{cmd: exec.Command(self, "-serve", "-boxes", strconv.Itoa(boxes), "-profile", profile)}
	s.cmd.Dir, s.cmd.Stderr = dir, os.Stderr
	s.ask, err = s.cmd.StdinPipe()
	check(err)
	out, err := s.cmd.StdoutPipe()
	check(err)
	check(s.cmd.Start())
	s.told = bufio.NewReader(out)
	line, err := s.told.ReadString('\n')
	check(err)
	s.address = strings.TrimSpace(line)
	return s
}

func (s *server) stop() {
	s.ask.Close()
	_ = s.cmd.Wait() // it was told to end
}

// holds asks the server what it holds, and the system what it used.
func (s *server) holds() (h holds) {
	fmt.Fprintln(s.ask)
	line, err := s.told.ReadString('\n')
	check(err)
	_, err = fmt.Sscan(line, &h.heap, &h.routines, &h.cpu)
	check(err)
	at := filepath.Join("/proc", strconv.Itoa(s.cmd.Process.Pid))
	files, _ := os.ReadDir(filepath.Join(at, "fd"))
	h.files = len(files)
	status, _ := os.ReadFile(filepath.Join(at, "status"))
	if _, rest, ok := strings.Cut(string(status), "VmHWM:"); ok {
		_, _ = fmt.Sscan(rest, &h.most)
		h.most <<= 10
	}
	return h
}

// beServer serves in the folder it was started in until its input ends, and answers each line with what it holds.
func beServer(boxes int, profile string) error {
	signal.Ignore(os.Interrupt)
	desk.Ease()
	address, stop, err := browser.Serve(context.Background(), ".", func(ctx context.Context, s *store.Store) error {
		if err := demo.Fill(ctx, s); err != nil {
			return err
		}
		return fillMany(ctx, s, boxes)
	})
	if err != nil {
		return err
	}
	defer stop()
	if profile != "" {
		to, err := os.Create(profile)
		if err != nil {
			return err
		}
		defer to.Close()
		if err := pprof.StartCPUProfile(to); err != nil {
			return err
		}
		defer pprof.StopCPUProfile()
	}
	fmt.Println(address)
	for in := bufio.NewScanner(os.Stdin); in.Scan(); {
		runtime.GC()
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		var used syscall.Rusage
		if err := syscall.Getrusage(syscall.RUSAGE_SELF, &used); err != nil {
			return err
		}
		seconds := func(t syscall.Timeval) float64 { return float64(t.Sec) + float64(t.Usec)/1e6 }
		fmt.Println(m.HeapAlloc, runtime.NumGoroutine(), seconds(used.Utime)+seconds(used.Stime))
	}
	return nil
}

// fillMany puts so many boxes more into a database, in a few folders, older than those there are.
func fillMany(ctx context.Context, s *store.Store, many int) error {
	projects, err := demo.Projects()
	if err != nil {
		return err
	}
	for from := 0; from < many; from += 500 {
		var some []store.Brought
		for i := from; i < min(many, from+500); i++ {
			b := projects[i%len(projects)].Clone()
			b.Name = brief.Text(fmt.Sprintf("%s %d", b.Name, i+1))
			some = append(some, store.Brought{Brief: b, Folders: []string{fmt.Sprintf("Stall %d", i%7+1)}})
		}
		if _, err := s.BringIn(ctx, "from the stalls", some); err != nil {
			return err
		}
	}
	return nil
}
