// Package web shows plans as pages. It holds no rule of the job: every page is
// drawn from plan.Make, and every change is a change of a brief.
package web

import (
	"embed"
	"io/fs"
	"log/slog"
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/cutlist"
	"brevium/core/record"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/store"
)

//go:embed templates
var templateFiles embed.FS

//go:embed static
var staticFiles embed.FS

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
	return newDesk(s, w, log, beside, []fs.FS{templateFiles}, static)
}

func (s *Server) handler() http.Handler {
	e := echo.New()
	e.Logger, e.HTTPErrorHandler, e.IPExtractor = s.log, s.failed, echo.ExtractIPDirect()
	s.guard(e)
	s.routes(e)
	if s.sessions != nil {
		return s.sessions.LoadAndSave(e)
	}
	return e
}

func (s *Server) routes(e *echo.Echo) {
	boxes, shops := keeps[brief.Brief]{s, s.boxes}, keeps[shop.Document]{s, s.shopKind}
	lists := keeps[cutlist.List]{s, s.listKind}
	e.GET("/static/:version/*", s.file)
	e.GET("/", s.home)
	e.POST("/projects", s.create)
	e.POST("/projects/upload", s.upload)
	e.GET("/bin", s.binPage)
	e.POST("/bin/empty", s.empty)
	e.GET("/library", s.libraryPage)
	e.POST("/library/forget", s.forget)
	e.GET("/words", s.glossary)
	e.GET("/shop", s.shopPage)
	e.POST("/shop/change", shops.change)
	e.POST("/shop/undo", shops.undo)
	e.POST("/shop/redo", shops.redo)
	e.GET("/shop/cards.csv", s.cardsCSV)
	e.GET("/shop/stash.csv", s.stashCSV)
	e.POST("/shop/cards", s.readCards)
	e.GET("/fair", s.fairPage)
	e.GET("/fair/least", s.leastOfFair)
	e.GET("/fair/shopping.csv", s.fairShopping)
	e.POST("/fair/cut", s.cutFair)
	e.POST("/fair/uncut", s.uncutFair)
	e.GET("/cut", s.cutLists)
	e.POST("/cut", s.newCutList)
	l := e.Group("/cut/:list")
	l.GET("", lists.page)
	l.GET("/least", s.leastOfList)
	l.GET("/pieces.csv", s.cutListCSV)
	l.POST("/change", lists.change)
	l.POST("/undo", lists.undo)
	l.POST("/redo", lists.redo)
	l.POST("/csv", s.readCutList)
	l.POST("/away", lists.throw(true))
	l.POST("/back", lists.throw(false))
	e.GET("/c/:token", s.collectionPage)
	for _, at := range []string{"/s/:token", "/c/:token/:place"} {
		sh := e.Group(at)
		sh.GET("", s.sharedPage)
		sh.GET("/card.svg", s.sharedCard)
		sh.GET("/folded", s.sharedFolded)
		sh.GET("/solid.json", s.sharedSolid)
		sh.GET("/step.svg", s.sharedStep)
		sh.GET("/out/:as", s.sharedOut)
		sh.GET("/document", s.sharedDocument)
	}
	s.recordRoutes(e)
	e.GET("/how", s.howTos)
	e.GET("/how/:name", s.howTo)
	p := e.Group("/projects/:id")
	p.GET("", s.workbench)
	p.GET("/things.csv", s.thingsCSV)
	p.POST("/things", s.readThings)
	p.POST("/keep-thing", s.keepThing)
	p.POST("/fitted", s.fitted)
	p.POST("/offcuts", s.keepOffcuts)
	p.POST("/cut", s.cutIt)
	p.POST("/uncut", s.uncut)
	p.GET("/shopping.csv", s.shoppingCSV)
	p.GET("/least", s.leastOfPlan)
	p.GET("/cutways", s.waysToCut)
	p.GET("/nearly", s.nearly)
	p.POST("/caution", s.caution)
	p.GET("/bench", s.benchPage)
	p.GET("/bench/stamp", s.benchStamp)
	p.POST("/bench/tick", s.tick)
	p.POST("/bench/again", s.beginAgain)
	p.GET("/step.svg", s.stepPicture)
	p.GET("/handon", s.handOn)
	p.GET("/templates", s.templates)
	p.GET("/out/:as", s.out)
	p.POST("/share", s.share)
	p.POST("/unshare", s.unshare)
	p.GET("/machine", s.machinePage)
	p.GET("/machine/state", s.machineState)
	p.GET("/machine/path.svg", s.machinePath)
	p.POST("/machine/send", s.sendToMachine)
	p.POST("/machine/press", s.pressMachine)
	p.GET("/howmany", s.howMany)
	p.GET("/print", s.print)
	p.GET("/folded", s.folded)
	p.GET("/solid.json", s.solid)
	p.GET("/style.svg", s.stylePicture)
	p.GET("/card.svg", s.cardPicture)
	p.GET("/document", s.document)
	p.POST("/change", boxes.change)
	p.POST("/undo", boxes.undo)
	p.POST("/redo", boxes.redo)
	p.POST("/copy", s.copyProject)
	p.POST("/makings", s.recordMade)
	p.POST("/folder", s.folderOf)
	p.GET("/other", s.otherPage)
	p.POST("/other", s.other)
	p.GET("/against/:other", s.against)
	p.POST("/bin", s.toBin)
	p.POST("/restore", s.restore)
}

// recordRoutes are the rooms of what was made and what is promised.
func (s *Server) recordRoutes(e *echo.Echo) {
	notes, batches := keeps[record.Note]{s, s.noteKind}, keeps[batch.Document]{s, s.batchKind}
	e.POST("/boxes", s.actBoxes)
	e.POST("/folders/rename", s.renameFolder)
	e.POST("/folders/share", s.shareFolder)
	e.POST("/folders/unshare", s.unshareFolder)
	e.GET("/bundle", s.bundleFolder)
	e.GET("/logbook", s.logbook)
	e.GET("/logbook/years", s.logYears)
	e.GET("/logbook/out/:as", s.logOut)
	e.POST("/logbook/in", s.readLog)
	m := e.Group("/makings/:id")
	m.GET("", notes.page)
	m.POST("/change", notes.change)
	m.POST("/undo", notes.undo)
	m.POST("/redo", notes.redo)
	m.GET("/picture.svg", s.madePicture)
	m.POST("/away", notes.throw(true))
	m.POST("/back", notes.throw(false))
	m.POST("/again", s.makeAgain)
	m.POST("/photos", s.addPhotos)
	e.GET("/photos/:photo", s.photo)
	e.POST("/photos/:photo", s.changePhoto)
	e.GET("/batches", s.batchList)
	e.POST("/batches", s.newBatch)
	b := e.Group("/batches/:batch")
	b.GET("", batches.page)
	b.GET("/gives", s.batchGives)
	b.GET("/stamp", s.batchStamp)
	b.GET("/sittings.ics", s.calendar)
	b.GET("/orders.csv", s.ordersOut)
	b.GET("/shopping.csv", s.batchShopping)
	b.GET("/labels", s.labels)
	b.GET("/print", s.schedulePrint)
	b.POST("/change", batches.change)
	b.POST("/in", s.ordersIn)
	b.POST("/undo", batches.undo)
	b.POST("/redo", batches.redo)
	b.POST("/away", batches.throw(true))
	b.POST("/back", batches.throw(false))
	e.GET("/copies", s.copiesPage)
	e.GET("/copies/now", s.copyNow)
	e.GET("/copies/file/:name", s.copyFile)
	e.POST("/copies/restore", s.restoreCopy)
	e.GET("/enter", s.enterPage)
	e.POST("/enter", s.enter, s.throttle())
	e.POST("/leave", s.leave)
}
