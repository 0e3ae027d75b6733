// Command kill proves that what was said to be kept is kept. It starts a server on this machine, makes changes of every kind
// as fast as it can, kills the server in the middle of them, and looks whether everything that was acknowledged is there;
// again and again:
//
//	go build -o /tmp/brevium ./cmd/brevium && kill [-rounds 120] /tmp/brevium
//
// With -crash the machine itself crashes: the database lies on a small disk of its own, and what is looked at is that disk
// as it was at a moment, with nothing on it that was not brought there (fsync). That takes root, and mkfs.ext4. A program
// that does not wait for the disk (synchronous(OFF) in store/open.go) loses changes there in the first rounds.
package main

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"io"
	"log"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"brevium/store"
)

func main() {
	rounds := flag.Int("rounds", 120, "how often it is killed")
	crash := flag.Bool("crash", false, "crash the machine instead")
	flag.Parse()
	if flag.NArg() != 1 {
		log.Fatal("name the program to kill")
	}
	dir, err := os.MkdirTemp("", "brevium-kill-")
	check(err)
	defer os.RemoveAll(dir)
	at := place(folder(dir))
	if *crash {
		d, err := newDisk(dir)
		check(err)
		defer d.remove()
		at = d
	}
	db := filepath.Join(at.path(), "kill.db")
	kinds := prepare(db)
	r := rand.New(rand.NewPCG(1, 1))
	lost, all := 0, 0
	for round := range *rounds {
		p := start(flag.Arg(0), db)
		p.writeFor(kinds, time.Duration(150+r.IntN(350))*time.Millisecond, at.pull)
		file, done, err := at.after()
		check(err)
		s, err := store.Open(context.Background(), file)
		check(err)
		for _, k := range kinds {
			all += k.new()
			if gone := k.look(s); gone != "" {
				lost++
				fmt.Printf("round %d: %s: %s\n", round+1, k.name, gone)
			}
		}
		check(s.Close())
		check(done())
		if (round+1)%20 == 0 {
			fmt.Printf("%d rounds, %d changes of %d kinds acknowledged, %d lost\n", round+1, all, len(kinds), lost)
		}
	}
	if lost > 0 {
		os.Exit(1)
	}
	check(whole(db))
	fmt.Println("the database is whole")
}

type process struct {
	cmd     *exec.Cmd
	address string
}

func start(program, db string) process {
	cmd := exec.Command(program, "serve", "--listen", "127.0.0.1:0", "--db", db)
	out, err := cmd.StdoutPipe()
	check(err)
	check(cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	check(err)
	go io.Copy(io.Discard, out)
	return process{cmd, strings.TrimSpace(strings.TrimPrefix(line, "Brevium is at "))}
}

// writeFor makes changes of all kinds at once, for so long; then the plug is pulled.
func (p process) writeFor(kinds []*kind, long time.Duration, pull func(process)) {
	time.AfterFunc(long, func() { pull(p) })
	var wait sync.WaitGroup
	for _, k := range kinds {
		wait.Go(func() {
			for k.write(p.address) {
			}
		})
	}
	wait.Wait()
	_ = p.cmd.Wait() // it was killed
}

// whole restores a copy of the database, which reads it from end to end.
func whole(db string) error {
	ctx := context.Background()
	s, err := store.Open(ctx, db)
	if err != nil {
		return err
	}
	err = s.Backup(ctx, db+".copy")
	s.Close()
	if err == nil {
		_, err = store.Restore(ctx, db+".copy", db, false)
	}
	return err
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
