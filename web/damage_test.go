package web

import (
	"database/sql"
	"testing"
)

// damage writes over a stored revision, as no page can.
func damage(t *testing.T, file string, revision int64) {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+file)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if _, err := db.Exec(`UPDATE revisions SET body = '{"brevium": 9}' WHERE id = ?`, revision); err != nil {
		t.Fatal(err)
	}
}
