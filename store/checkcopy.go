package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"maps"
	"os"
	"strings"
	"sync"
)

// Readable says why a copy can't take a database's place; nil when this Brevium can read it whole.
func Readable(ctx context.Context, file string) error { return told(checkCopy(ctx, file)) }

// checkCopy reads a copy whole and says why it can't take a database's place.
func checkCopy(ctx context.Context, file string) error {
	if _, err := os.Stat(file); err != nil {
		return err
	}
	db, err := connect(file, "mode=ro&immutable=1&_pragma=trusted_schema(0)")
	if err != nil {
		return err
	}
	defer db.Close()
	var says string
	if err := db.QueryRowContext(ctx, `PRAGMA integrity_check(1)`).Scan(&says); ctx.Err() != nil {
		return ctx.Err()
	} else if err != nil {
		return errors.New("it is damaged or isn't a backup")
	}
	if says != "ok" {
		return errors.New("it is damaged")
	}
	is, err := form(ctx, db)
	if err != nil {
		return err
	}
	if is == 0 {
		return errors.New("it isn't a backup that Brevium made")
	}
	p, err := provider(db)
	if err != nil {
		return err
	}
	if is > latest(p) {
		return errNewer
	}
	if err := ours(ctx, db, is); err != nil {
		return err
	}
	heads := map[bool]string{true: "documents", false: "projects"}[is >= 9]
	lost, err := ask[int](ctx, db, `SELECT count(*) FROM `+heads+`
		WHERE head IS NOT NULL AND head NOT IN (SELECT id FROM revisions)`)
	if err == nil && lost > 0 {
		err = fmt.Errorf("%d of its boxes are missing", lost)
	}
	return err
}

// ours says what of a database's schema is not as our own program makes it.
func ours(ctx context.Context, db *sql.DB, is int64) error {
	want, err := schemaOf(is)
	if err != nil {
		return err
	}
	got, err := schema(ctx, db)
	if err != nil {
		return err
	}
	for what, says := range got {
		if want[what] != says {
			return fmt.Errorf("it isn't as Brevium made it: %s doesn't belong there, or was changed", what)
		}
		delete(want, what)
	}
	for what := range want {
		return fmt.Errorf("it isn't as Brevium made it: %s is missing", what)
	}
	return nil
}

// schema gives what a database is made of: each table, index, view and trigger with its words. The table in which forms
// are noted is its package's, and only has to be a table.
func schema(ctx context.Context, db *sql.DB) (map[string]string, error) {
	out := map[string]string{}
	return out, each(ctx, db, func(r row) (says [3]string, err error) {
		err = r.Scan(&says[0], &says[1], &says[2])
		return says, err
	}, func(says [3]string) error {
		if strings.HasSuffix(says[1], "goose_db_version") {
			says[2] = ""
		}
		out[says[0]+" "+says[1]] = strings.Join(strings.Fields(strings.ReplaceAll(says[2], `"`, "")), " ")
		return nil
	}, `SELECT type, name, coalesce(sql, '') FROM sqlite_master WHERE type != 'table' AND sql IS NOT NULL OR type = 'table'
		AND name NOT LIKE 'sqlite\_%' ESCAPE '\'`)
}

// schemas are those of all forms, as they were first asked for.
var schemas struct {
	sync.Mutex
	of map[int64]map[string]string
}

// schemaOf gives what a database of a form is made of.
func schemaOf(is int64) (map[string]string, error) {
	schemas.Lock()
	defer schemas.Unlock()
	if known := schemas.of[is]; known != nil {
		return maps.Clone(known), nil
	}
	ctx := context.Background()
	db, err := sql.Open("sqlite", ":memory:")
	if err != nil {
		return nil, err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	p, err := provider(db)
	if err != nil {
		return nil, err
	}
	if _, err := p.UpTo(ctx, is); err != nil {
		return nil, err
	}
	made, err := schema(ctx, db)
	if err == nil {
		if schemas.of == nil {
			schemas.of = map[int64]map[string]string{}
		}
		schemas.of[is] = made
	}
	return maps.Clone(made), err
}
