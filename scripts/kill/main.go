// Command kill proves that what was said to be kept is kept: it starts a server
// on this machine, changes a box as fast as it can, kills the server in the
// middle of it, starts it again and looks; a thousand times. It needs a built
// program: go build -o /tmp/brevium ./cmd/brevium && kill [-rounds 1000] /tmp/brevium.
package main

import (
	"bufio"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"log"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/store"
)

func main() {
	rounds := flag.Int("rounds", 1000, "how often it is killed")
	flag.Parse()
	if flag.NArg() != 1 {
		log.Fatal("name the program to kill")
	}
	dir, err := os.MkdirTemp("", "brevium-kill-")
	check(err)
	defer os.RemoveAll(dir)
	db := filepath.Join(dir, "kill.db")
	id := prepare(db)
	r := rand.New(rand.NewPCG(1, 1))
	kept, changes := 0, 0
	for round := range *rounds {
		p := start(flag.Arg(0), db)
		if got := notes(p.address, id); got < kept {
			log.Fatalf("round %d: %d was kept, and after the kill it is %d", round, kept, got)
		} else {
			kept = got
		}
		stop := time.Now().Add(time.Duration(5+r.IntN(250)) * time.Millisecond)
		killed := make(chan bool)
		go func() {
			time.Sleep(time.Until(stop))
			p.cmd.Process.Kill()
			close(killed)
		}()
		for {
			if !change(p.address, id, kept+1) {
				break
			}
			kept++
			changes++
		}
		<-killed
		p.cmd.Wait()
		if (round+1)%100 == 0 {
			fmt.Printf("%d rounds, %d changes kept, none lost\n", round+1, changes)
		}
	}
	check(whole(db))
	fmt.Println("the database is whole")
}

func prepare(db string) (id string) {
	s, err := store.Open(context.Background(), db)
	check(err)
	defer s.Close()
	b := brief.New("in")
	b.Notes = "0"
	id, err = s.Boxes.Create(context.Background(), b, "new")
	check(err)
	return id
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

// notes reads the number that was kept last.
func notes(address, id string) int {
	res, err := http.Get(address + "/projects/" + id + "/document")
	check(err)
	defer res.Body.Close()
	var b brief.Brief
	check(json.NewDecoder(res.Body).Decode(&b))
	n, err := strconv.Atoi(string(b.Notes))
	check(err)
	return n
}

// change writes the next number and reports whether it is said to be kept.
func change(address, id string, n int) bool {
	res, err := http.PostForm(address+"/projects/"+id+"/change", url.Values{"notes": {strconv.Itoa(n)}})
	if err != nil {
		return false
	}
	io.Copy(io.Discard, res.Body)
	res.Body.Close()
	return res.StatusCode == http.StatusOK
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
