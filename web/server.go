// Package web shows plans as pages, in rooms by what a person does. Each room has its handlers, what its pages are made
// of, and its templates; what they share is on the desk. No room holds a rule of the job: every page is drawn from a
// plan, and every change is a change of a document.
package web

import (
	"embed"
	"io/fs"
	"log/slog"
	"net/http"

	"brevium/core/request"
	"brevium/store"
	"brevium/web/atbench"
	"brevium/web/batches"
	"brevium/web/boxes"
	"brevium/web/desk"
	"brevium/web/help"
	"brevium/web/house"
	"brevium/web/logbook"
	"brevium/web/people"
	"brevium/web/sheets"
	"brevium/web/supplies"
	"brevium/web/workbench"
)

//go:embed static
var staticFiles embed.FS

// Beside is what the pages are served with.
type Beside = desk.Beside

var rooms = []desk.RoomPages{desk.Pages, boxes.Pages, workbench.Pages, supplies.Pages, atbench.Pages, batches.Pages,
	logbook.Pages, people.Pages, help.Pages, house.Pages}

// Server is the application's pages over a store: the desk and the rooms round it.
type Server struct {
	*desk.Desk
	Sheets   *sheets.Room
	Work     *workbench.Room
	Batches  *batches.Room
	Boxes    *boxes.Room
	Supplies *supplies.Room
	Logbook  *logbook.Room
	Bench    *atbench.Room
	People   *people.Room
	Help     *help.Room
	House    *house.Room
}

// New makes the application.
func New(s *store.Store, w request.Workshop, log *slog.Logger, beside Beside) (http.Handler, error) {
	srv, err := newServer(s, w, log, beside)
	if err != nil {
		return nil, err
	}
	return srv.handler(), nil
}

func newServer(s *store.Store, w request.Workshop, log *slog.Logger, beside Beside) (*Server, error) {
	static, err := fs.Sub(staticFiles, "static")
	if err != nil {
		return nil, err
	}
	d, err := desk.New(s, w, log, beside, rooms, static)
	if err != nil {
		return nil, err
	}
	srv := &Server{Desk: d, Sheets: sheets.New(d), People: people.New(d), Help: help.New(d), House: house.New(d)}
	srv.Work = workbench.New(d, srv.Sheets)
	srv.Batches = batches.New(d, srv.Work)
	srv.Boxes = boxes.New(d, srv.Work, srv.Batches)
	srv.Supplies = supplies.New(d, srv.Sheets, srv.Work, srv.Boxes)
	srv.Logbook = logbook.New(d, srv.Work, srv.Supplies)
	srv.Bench = atbench.New(d, srv.Work, srv.Logbook)
	return srv, nil
}

func (s *Server) handler() http.Handler { return s.Serve(s.routes()) }
