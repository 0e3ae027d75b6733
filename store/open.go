package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is the database. It is safe for use by many requests at once.
type Store struct {
	*database
	kinds
	Log   *Logbook
	Shelf *Shelf
	Links *Links
	file  string

	dailySays atomic.Pointer[string] // why the last daily copy was not made
}

// Open opens the database in a file, making it and bringing it up to date as
// needed; before it is brought up to date it is copied. Its folder is made, and
// its files are, for this user alone.
func Open(ctx context.Context, file string) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(file), 0o700); err != nil {
		return nil, fmt.Errorf("can't make the folder for %s: %w", file, starting(err))
	}
	made, err := os.OpenFile(file, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("can't open %s: %w", file, starting(err))
	}
	made.Close()
	for _, end := range []string{"", "-wal", "-shm"} {
		if err := os.Chmod(file+end, 0o600); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return nil, fmt.Errorf("can't keep %s to yourself: %w", file+end, err)
		}
	}
	tidied(file)
	db, err := connect(file, "_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_txlock=immediate")
	if err != nil {
		return nil, err
	}
	d := &database{db: db, changes: make(chan *change), closing: make(chan struct{}), written: make(chan struct{})}
	all := know(d)
	s := &Store{database: d, kinds: all, Log: &Logbook{d, all.Makings}, Shelf: &Shelf{d, all.Boxes}, Links: &Links{d}, file: file}
	if err := s.migrate(ctx, file); err != nil {
		db.Close()
		return nil, fmt.Errorf("can't open %s: %w", file, starting(err))
	}
	go s.write()
	if err := s.fillWords(ctx); err != nil {
		s.Close()
		return nil, fmt.Errorf("can't open %s: %w", file, starting(err))
	}
	if err := s.forgetArrived(ctx); err != nil {
		s.Close()
		return nil, fmt.Errorf("can't open %s: %w", file, starting(err))
	}
	return s, nil
}

// tidied takes away what a restore left that was broken off, or that the system held on to.
func tidied(file string) {
	left, _ := filepath.Glob(filepath.Join(filepath.Dir(file), filepath.Base(file)+restoring+"*"))
	for _, dir := range left {
		if is, err := os.Stat(dir); err == nil && time.Since(is.ModTime()) > time.Hour { // no other is at it
			_ = os.RemoveAll(dir)
		}
	}
}

// forgetArrived drops the names of changes that no window waits for any more.
func (s *Store) forgetArrived(ctx context.Context) error {
	old := time.Now().UTC().Add(-30 * 24 * time.Hour).Format(clock)
	return s.exec(ctx, `DELETE FROM arrived WHERE at < ?`, old)
}

// connect opens a database file, whatever letters its name has.
func connect(file, more string) (*sql.DB, error) {
	abs, err := filepath.Abs(file)
	if err != nil {
		return nil, err
	}
	dsn := url.URL{Scheme: "file", Path: inURL(filepath.ToSlash(abs)), RawQuery: "_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&" +
		more}
	return sql.Open("sqlite", dsn.String())
}

// inURL is a file's path as it stands in an address: where it begins with the letter of a drive, a slash comes before it.
func inURL(path string) string {
	if !strings.HasPrefix(path, "/") {
		return "/" + path
	}
	return path
}

// Close waits for what is being written and closes the database.
func (s *Store) Close() error {
	s.close.Do(func() { close(s.closing) })
	<-s.written
	return s.db.Close()
}

func provider(db *sql.DB) (*goose.Provider, error) {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, dir, goose.WithSlog(slog.New(slog.DiscardHandler)))
}

// latest is the newest form of the database that this program knows.
func latest(p *goose.Provider) int64 {
	sources := p.ListSources()
	return sources[len(sources)-1].Version
}

// IsNewer reports whether Brevium didn't start because a newer one has written the database.
func IsNewer(err error) bool { return errors.Is(err, errNewer) }

// errNewer says that a newer program has written the database.
var errNewer = errors.New("a newer Brevium has written it; open it with that one, or a copy made before with this one")

// form reads which form a database has, 0 for a new one.
func form(ctx context.Context, db *sql.DB) (int64, error) {
	var n int
	if err := db.QueryRowContext(ctx, `SELECT count(*) FROM sqlite_master WHERE name = 'goose_db_version'`).
		Scan(&n); err != nil || n == 0 {
		return 0, err
	}
	var is sql.NullInt64
	err := db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version WHERE is_applied`).Scan(&is)
	return is.Int64, err
}

// migrate brings the database up to date; named, it is copied before. Another Brevium may be doing the
// same to it: whoever comes second finds it done.
func (s *Store) migrate(ctx context.Context, file string) error {
	p, err := provider(s.db)
	if err != nil {
		return err
	}
	const tries = 40
	for try := 1; ; try++ {
		if err = s.step(ctx, p, file); err == nil || errors.Is(err, errNewer) || try == tries || ctx.Err() != nil {
			return err
		}
		if _, lasting := Say(told(err)); lasting && !busy(err) {
			return err
		}
		time.Sleep(50 * time.Millisecond)
	}
}

func (s *Store) step(ctx context.Context, p *goose.Provider, file string) error {
	is, err := form(ctx, s.db)
	if err != nil || is == latest(p) {
		return err
	}
	if is > latest(p) {
		return errNewer
	}
	if is > 0 && file != "" {
		if err := s.Backup(ctx, fmt.Sprintf("%s.before-%d-%s", file, latest(p), NewID()[:6])); err != nil {
			return err
		}
	}
	_, err = p.Up(ctx)
	return err
}

// fillWords gives boxes of an older form the words that they are found by, and notes the cards they name.
func (s *Store) fillWords(ctx context.Context) error {
	n, err := ask[int](ctx, s.db, `SELECT count(*) FROM documents WHERE words IS NULL AND kind = 'box'`)
	if err != nil || n == 0 {
		return err
	}
	all, err := s.Boxes.readable(ctx, selectRevision+` FROM documents d JOIN revisions r ON d.head = r.id
		WHERE d.words IS NULL AND d.kind = 'box'`)
	if err != nil {
		return err
	}
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		for _, rev := range all {
			title := string(rev.Doc.Name)
			_, err := tx.ExecContext(ctx, `UPDATE documents SET title = ?, words = ? WHERE id = ?`, title,
				strings.ToLower(title+"\n"+wordsOf(&rev.Doc)), rev.Of)
			if err == nil {
				err = noteCards(ctx, tx, rev.Of, &rev.Doc)
			}
			if err != nil {
				return err
			}
		}
		_, err := tx.ExecContext(ctx, `UPDATE documents SET words = '' WHERE words IS NULL`) // what can't be read
		return err
	})
}
