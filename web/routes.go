package web

import (
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/photo"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// get and post are lines of the table: an address, what answers there, and what it lets in.
func get(at string, do echo.HandlerFunc, lets desk.Lets) desk.Route {
	return desk.Route{On: http.MethodGet, At: at, Do: do, Lets: lets}
}

func post(at string, do echo.HandlerFunc, lets desk.Lets) desk.Route {
	return desk.Route{On: http.MethodPost, At: at, Do: do, Lets: lets}
}

// What routes let in beyond forms.
var (
	asForm  = desk.Lets{}
	anybody = desk.Lets{Open: true}
	athome  = desk.Lets{Home: true}
	file    = func(bytes int64) desk.Lets { return desk.Lets{Bytes: bytes, Slow: true} }
)

const mb = 1 << 20

// moved leads to where a page is now.
func moved(to string) echo.HandlerFunc {
	return func(c *echo.Context) error { return c.Redirect(http.StatusMovedPermanently, to) }
}

// routes is every address there is, with what it lets in.
func (s *Server) routes() []desk.Route {
	boxes, shops := desk.KeepsOf(s.Desk, s.Work.Boxes), desk.KeepsOf(s.Desk, s.Supplies.ShopKind)
	lists, notes := desk.KeepsOf(s.Desk, s.Supplies.ListKind), desk.KeepsOf(s.Desk, s.Logbook.NoteKind)
	orders := desk.KeepsOf(s.Desk, s.Batches.BatchKind)
	// What answers with a box is given it: any box, one there is something to show of, one that has a plan.
	type ofBox = func(*echo.Context, *workbench.State) error
	box := func(do ofBox) echo.HandlerFunc { return desk.With(s.Work.State, do) }
	anyPlan := func(do ofBox) echo.HandlerFunc { return desk.With(workbench.WithAnyPlan(s.Work.State), do) }
	planned := func(do ofBox) echo.HandlerFunc { return desk.With(workbench.WithPlan(s.Work.State), do) }
	return slices.Concat([]desk.Route{
		get("/static/:version/*", s.File, anybody),

		// Boxes
		get("/", s.Boxes.Home, asForm),
		post("/projects", s.Boxes.Create, asForm),
		post("/projects/upload", s.TakeIn, file(8<<30)),
		post("/arrivals/:id/back", s.Boxes.TakeBack, asForm),
		post("/first", s.Boxes.First, athome),
		post("/samples", s.Boxes.Samples, athome),
		post("/boxes", s.Boxes.ActBoxes, asForm),
		get("/lines", s.Boxes.Lines, asForm),
		get("/bin", s.Boxes.BinPage, asForm),
		post("/bin/empty", s.Boxes.Empty, asForm),
		post("/folders/rename", s.Boxes.RenameFolder, asForm),
		post("/folders/share", s.Boxes.ShareFolder, asForm),
		post("/folders/unshare", s.Boxes.UnshareFolder, asForm),
		get("/bundle", s.Boxes.BundleFolder, asForm),
		get("/projects/:id/card.svg", s.Boxes.CardPicture, asForm),
		get("/projects/:id/document", s.Boxes.Document, asForm),
		post("/projects/:id/copy", s.Boxes.CopyProject, asForm),
		post("/projects/:id/folder", s.Boxes.FolderOf, asForm),
		get("/projects/:id/other", s.Boxes.OtherPage, asForm),
		post("/projects/:id/other", s.Boxes.Other, asForm),
		get("/projects/:id/against/:other", s.Boxes.Against, asForm),
		post("/projects/:id/bin", s.Boxes.ToBin, asForm),
		post("/projects/:id/restore", s.Boxes.Restore, asForm),

		// The workbench
		get("/projects/:id", s.Work.Workbench, asForm),
		get("/projects/:id/folded", anyPlan(s.Work.Folded), asForm),
		get("/projects/:id/solid.json", anyPlan(workbench.Solid), asForm),
		get("/projects/:id/style.svg", s.Work.StylePicture, asForm),
		get("/projects/:id/things.csv", s.Work.ThingsCSV, asForm),
		post("/projects/:id/things", s.Work.ReadThings, asForm),
		post("/projects/:id/agree", s.Work.Agree, asForm),
		post("/projects/:id/keep-thing", s.Work.KeepThing, asForm),
		get("/projects/:id/howmany", anyPlan(s.Work.HowMany), asForm),
		get("/projects/:id/least", s.Work.LeastOfPlan, asForm),
		get("/projects/:id/cutways", planned(s.Work.WaysToCut), asForm),
		get("/projects/:id/nearly", planned(s.Work.Nearly), asForm),
		get("/library", s.Work.Usuals.Page, asForm),
		post("/library/forget", s.Work.Usuals.Forget, asForm),

		// Supplies: the shop, and what is cut
		get("/shop", s.Supplies.ShopPage, asForm),
		get("/shop/cards.csv", s.Supplies.CardsCSV, asForm),
		get("/shop/stash.csv", s.Supplies.StashCSV, asForm),
		post("/shop/cards", s.Supplies.ReadCards, asForm),
		post("/projects/:id/fitted", box(s.Supplies.Fitted), asForm),
		post("/projects/:id/offcuts", anyPlan(s.Supplies.KeepOffcuts), asForm),
		post("/projects/:id/cut", planned(s.Supplies.CutIt), asForm),
		post("/projects/:id/uncut", s.Supplies.Uncut, asForm),
		post("/projects/:id/caution", s.Supplies.Caution, asForm),
		get("/projects/:id/shopping.csv", planned(s.Supplies.ShoppingCSV), asForm),
		get("/fair", s.Supplies.FairPage, asForm),
		get("/fair/least", s.Supplies.LeastOfFair, asForm),
		get("/fair/shopping.csv", s.Supplies.FairShopping, asForm),
		post("/fair/cut", s.Supplies.CutFair, asForm),
		post("/fair/uncut", s.Supplies.UncutFair, asForm),
		get("/cut", s.Supplies.CutLists, asForm),
		post("/cut", s.Supplies.NewCutList, asForm),
		get("/cut/:list", lists.Page, asForm),
		get("/cut/:list/least", s.Supplies.LeastOfList, asForm),
		get("/cut/:list/pieces.csv", s.Supplies.CutListCSV, asForm),
		post("/cut/:list/csv", s.Supplies.ReadCutList, asForm),

		// The bench, and what is handed on
		get("/projects/:id/bench", s.Bench.BenchPage, asForm),
		get("/projects/:id/bench/stamp", s.Bench.BenchStamp, asForm),
		post("/projects/:id/bench/tick", s.Bench.Tick, asForm),
		get("/bench/worker.js", s.BenchWorker, anybody),
		get("/projects/:id/bench/whole", s.Bench.WholeBench, asForm),
		get("/projects/:id/bench/app.webmanifest", s.Bench.Manifest, asForm),
		post("/projects/:id/bench/timer", s.Bench.Time, asForm),
		post("/projects/:id/bench/photo", s.Bench.AddPhoto, file(photo.MostBytes+mb)),
		get("/projects/:id/bench/photos/:photo", s.Bench.BenchPhoto, asForm),
		post("/projects/:id/bench/photos/:photo/away", s.Bench.DropPhoto, asForm),
		post("/projects/:id/bench/again", s.Bench.BeginAgain, asForm),
		get("/projects/:id/step.svg", s.Bench.StepPicture, asForm),
		get("/projects/:id/print", box(s.Bench.Print), asForm),
		get("/projects/:id/labels.pdf", s.Bench.Labels, asForm),
		get("/projects/:id/handon", s.Bench.HandOn, asForm),
		get("/projects/:id/templates", s.Bench.Templates, asForm),
		post("/projects/:id/templates", s.Bench.SetBed, asForm),
		get("/projects/:id/out/:as", s.Bench.Out, asForm),
		post("/projects/:id/share", s.Bench.Share, asForm),
		post("/projects/:id/unshare", s.Bench.Unshare, asForm),
		get("/projects/:id/machine", s.Bench.MachinePage, asForm),
		get("/projects/:id/machine/state", s.Bench.MachineState, asForm),
		get("/projects/:id/machine/path.svg", s.Bench.MachinePath, asForm),
		post("/projects/:id/machine/send", s.Bench.SendToMachine, asForm),
		post("/projects/:id/machine/press", s.Bench.PressMachine, asForm),
		get("/c/:token", s.Bench.CollectionPage, anybody),

		// The logbook
		get("/logbook", s.Logbook.Logbook, asForm),
		get("/logbook/years", s.Logbook.LogYears, asForm),
		get("/logbook/out/:as", s.Logbook.LogOut, asForm),
		post("/logbook/in", s.Logbook.ReadLog, file(9*mb)),
		post("/projects/:id/makings", box(s.Logbook.RecordMade), asForm),
		get("/makings/:id", notes.Page, asForm),
		get("/makings/:id/picture.svg", desk.With(s.Logbook.MakingAt, s.Logbook.MadePicture), asForm),
		post("/makings/:id/again", desk.With(s.Logbook.MakingAt, s.Logbook.MakeAgain), asForm),
		post("/makings/:id/photos", desk.With(s.Logbook.MakingAt, s.Logbook.AddPhotos), file(120*mb)),
		get("/photos/:photo", s.Logbook.Photo, asForm),
		post("/photos/:photo", s.Logbook.ChangePhoto, asForm),

		// Batches
		get("/batches", s.Batches.BatchList, asForm),
		post("/batches", s.Batches.NewBatch, file(9*mb)),
		get("/batches/:batch", orders.Page, asForm),
		get("/batches/:batch/gives", desk.With(s.Batches.BatchAt, s.Batches.BatchGives), asForm),
		get("/batches/:batch/stamp", s.Batches.BatchStamp, asForm),
		get("/batches/:batch/sittings.ics", s.Batches.Calendar, asForm),
		get("/batches/:batch/orders.csv", desk.With(s.Batches.BatchAt, s.Batches.OrdersOut), asForm),
		get("/batches/:batch/shopping.csv", s.Batches.BatchShopping, asForm),
		get("/batches/:batch/labels", desk.With(s.Batches.BatchAt, s.Batches.Labels), asForm),
		get("/batches/:batch/labels.pdf", desk.With(s.Batches.BatchAt, s.Batches.LabelSheets), asForm),
		get("/batches/:batch/print", desk.With(s.Batches.BatchAt, s.Batches.SchedulePrint), asForm),
		post("/batches/:batch/in", s.Batches.OrdersIn, file(9*mb)),

		// People and copies
		get("/enter", s.People.EnterPage, anybody),
		post("/enter", s.People.Throttle()(s.People.Enter), anybody),
		post("/leave", s.People.Leave, asForm),
		get("/in/:token", s.People.Invited, anybody),
		post("/in/:token", s.People.Throttle()(s.People.ComeIn), anybody),
		get("/house.crt", s.People.HouseCertificate, anybody),
		get("/phones", s.People.PhonesPage, athome),
		get("/phones/here", s.People.PhonesHere, athome),
		post("/phones/open", s.People.OpenGate, athome),
		post("/phones/passphrase", s.People.SetPassphrase, athome),
		post("/phones/:id/away", s.People.SendAway, athome),
		get("/copies", s.House.Where, athome),
		get("/copies/now", s.House.CopyNow, desk.Lets{Slow: true, Home: true}),
		get("/copies/file/:name", s.House.CopyFile, desk.Lets{Slow: true, Home: true}),
		post("/copies/restore", s.House.RestoreCopy, desk.Lets{Bytes: 8 << 30, Slow: true, Home: true}),
		post("/copies/folder", s.House.OpenFolder, athome),
		post("/copies/login", s.House.AtLogin, athome),
		post("/copies/elsewhere", s.House.Elsewhere, desk.Lets{Slow: true, Home: true}),
		post("/close", s.House.CloseDown, athome),
		get("/printers", s.House.Printers, asForm),
		get("/printers/test.pdf", s.House.TestPage, asForm),
		post("/printers", s.House.MeasurePrinter, asForm),
		post("/printers/:id", s.House.ChangePrinter, asForm),

		// Help
		get("/help", s.Help.Help, asForm),
		get("/help/:topic", s.Help.Topic, asForm),
		post("/help/spelling", s.Help.Spell, asForm),
		get("/words", moved("/help#words"), asForm),
		get("/how", moved("/help#how"), asForm),
		get("/how/:name", s.Help.HowTo, asForm),
	},
		boxes.Routes("/projects/:id", asForm), shops.Routes("/shop", asForm), lists.Routes("/cut/:list", asForm),
		notes.Routes("/makings/:id", asForm), orders.Routes("/batches/:batch", file(9*mb)),
		lists.Throws("/cut/:list"), notes.Throws("/makings/:id"), orders.Throws("/batches/:batch"),
		s.sharedRoutes("/s/:token"), s.sharedRoutes("/c/:token/:place"))
}

// sharedRoutes are what whoever has a link may see.
func (s *Server) sharedRoutes(at string) []desk.Route {
	return []desk.Route{
		get(at, s.Bench.SharedPage, anybody),
		get(at+"/card.svg", s.Bench.SharedCard, anybody),
		get(at+"/folded", s.Bench.SharedFolded, anybody),
		get(at+"/solid.json", s.Bench.SharedSolid, anybody),
		get(at+"/step.svg", s.Bench.SharedStep, anybody),
		get(at+"/out/:as", s.Bench.SharedOut, anybody),
		get(at+"/document", s.Bench.SharedDocument, anybody),
	}
}
