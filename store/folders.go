package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"

	"brevium/core/words"
)

// Folder is a name that boxes lie under, any number of them and each under as many as one likes:
// an occasion, a fair, a person.
type Folder struct {
	Name  string
	Boxes int
}

// mostFolder is how long the name of a folder may be.
const mostFolder = 60

// MostFolders is how many folders there may be.
const MostFolders = 500

// FolderName gives a folder's name as it is kept, or says why it is none.
func FolderName(text string) (string, error) {
	name := strings.Join(strings.Fields(text), " ")
	if !words.Visible(name) {
		return "", errors.New("a folder needs a name, such as the occasion")
	}
	if words.Letters(name) > mostFolder {
		return "", fmt.Errorf("the folder's name is longer than %d letters", mostFolder)
	}
	return name, nil
}

// Folders lists the folders of boxes that are neither in the bin nor put by.
func (s *Shelf) Folders(ctx context.Context) (out []Folder, err error) {
	return all(ctx, s.db, func(r row) (f Folder, err error) {
		err = r.Scan(&f.Name, &f.Boxes)
		return f, err
	}, `WITH away (id) AS (
			SELECT id FROM documents INDEXED BY boxes_in_bin WHERE kind = 'box' AND binned IS NOT NULL UNION ALL
			SELECT id FROM documents INDEXED BY boxes_put_by WHERE kind = 'box' AND binned IS NULL AND archived IS NOT NULL),
		gone (folder, n) AS (SELECT folder, count(*) FROM away JOIN folders ON project = away.id GROUP BY folder)
		SELECT f.folder, f.n - coalesce(g.n, 0) AS here FROM (SELECT folder, count(*) AS n FROM folders GROUP BY folder) f
		LEFT JOIN gone g ON g.folder = f.folder WHERE here > 0 ORDER BY f.folder COLLATE NOCASE`)
}

// FoldersOf lists the folders that a box lies in.
func (s *Shelf) FoldersOf(ctx context.Context, project string) ([]string, error) {
	return all(ctx, s.db, scanned[string], `SELECT folder FROM folders WHERE project = ? ORDER BY folder COLLATE NOCASE`, project)
}

// All lists the boxes that are not in the bin, as the first page has them.
func (s *Shelf) All(ctx context.Context) ([]string, error) {
	return all(ctx, s.db, scanned[string], `SELECT id FROM documents WHERE kind = 'box' AND binned IS NULL
		ORDER BY changed DESC, rowid DESC`)
}

// InFolder lists the boxes of a folder that are not in the bin, as the first page has them.
func (s *Shelf) InFolder(ctx context.Context, folder string) ([]string, error) {
	return all(ctx, s.db, scanned[string], `SELECT p.id FROM folders f JOIN documents p ON p.id = f.project
		WHERE f.folder = ? AND p.binned IS NULL ORDER BY p.changed DESC, p.rowid DESC`, folder)
}

// toEach does something to several boxes, all of which must be there.
func (s *Shelf) toEach(ctx context.Context, projects []string, do func(ctx context.Context, tx *sql.Tx, id string) error) error {
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		for _, id := range projects {
			if err := there(ctx, tx, id); err != nil {
				return err
			}
			if err := do(ctx, tx, id); err != nil {
				return err
			}
		}
		return nil
	})
}

// PutIn puts boxes into a folder, making it when it is new.
func (s *Shelf) PutIn(ctx context.Context, folder string, projects ...string) error {
	folder, err := FolderName(folder)
	if err != nil {
		return &Refused{err}
	}
	return s.toEach(ctx, projects, func(ctx context.Context, tx *sql.Tx, id string) error { return putIn(ctx, tx, folder, id) })
}

func putIn(ctx context.Context, tx *sql.Tx, folder, project string) error {
	n, err := ask[int](ctx, tx, `SELECT count(DISTINCT folder) FROM folders WHERE folder != ?`, folder)
	if err == nil && n >= MostFolders {
		err = &Refused{fmt.Errorf("there are %d folders already; remove the boxes from one of them", n)}
	}
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO folders (folder, project) VALUES (?, ?) ON CONFLICT DO NOTHING`, folder, project)
	return err
}

// TakeOut takes boxes out of a folder; an empty folder is none.
func (s *Shelf) TakeOut(ctx context.Context, folder string, projects ...string) error {
	return s.toEach(ctx, projects, func(ctx context.Context, tx *sql.Tx, id string) error {
		_, err := tx.ExecContext(ctx, `DELETE FROM folders WHERE folder = ? AND project = ?`, folder, id)
		return err
	})
}

// RenameFolder gives a folder another name; one that is there already takes its boxes in.
func (s *Shelf) RenameFolder(ctx context.Context, folder, name string) error {
	name, err := FolderName(name)
	if err != nil {
		return &Refused{err}
	}
	return s.within(ctx, func(ctx context.Context, tx *sql.Tx) error {
		if name == folder {
			return nil
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO folders (folder, project) SELECT ?, project FROM folders WHERE folder = ?
			ON CONFLICT DO NOTHING`, name, folder); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM folders WHERE folder = ?`, folder)
		return err
	})
}

// mark sets or clears a mark of boxes that has its time.
func (s *Shelf) mark(ctx context.Context, column string, on bool, projects []string) error {
	set := `UPDATE documents SET ` + column + ` = NULL WHERE id = ?`
	if on {
		set = `UPDATE documents SET ` + column + ` = coalesce(` + column + `, strftime('%Y-%m-%dT%H:%M:%fZ')) WHERE id = ?`
	}
	return s.toEach(ctx, projects, func(ctx context.Context, tx *sql.Tx, id string) error {
		_, err := tx.ExecContext(ctx, set, id)
		return err
	})
}

// PutBy puts boxes by, or takes them up again.
func (s *Shelf) PutBy(ctx context.Context, on bool, projects ...string) error {
	return s.mark(ctx, "archived", on, projects)
}

// StartFrom keeps boxes as starting points for others, or not any more.
func (s *Shelf) StartFrom(ctx context.Context, on bool, projects ...string) error {
	return s.mark(ctx, "starting", on, projects)
}

// ToBin puts boxes in the bin.
func (s *Shelf) ToBin(ctx context.Context, projects ...string) error {
	return s.mark(ctx, "binned", true, projects)
}

// Marks reports whether a box is put by, and whether it is kept as a starting point.
func (s *Shelf) Marks(ctx context.Context, project string) (by, starting bool, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT archived IS NOT NULL, starting IS NOT NULL FROM documents WHERE id = ?`, project).
		Scan(&by, &starting)
	if errors.Is(err, sql.ErrNoRows) {
		return by, starting, ErrNone
	}
	return by, starting, told(err)
}
