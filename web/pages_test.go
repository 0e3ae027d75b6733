package web

import (
	"fmt"
	"html/template"
	"reflect"
	"strings"
	"testing"
	"text/template/parse"

	"brevium/web/desk"
)

// Every template names only what its page has: each is walked with the type of the page it is drawn from, through the
// templates it is made of.
func TestTemplatesNameWhatThereIs(t *testing.T) {
	a := newApp(t)
	c := &checker{t: t, funcs: a.server.Funcs(), seen: map[string]bool{}, reached: map[string]bool{}}
	pages, all := 0, map[string]bool{}
	for _, room := range rooms {
		for name, page := range room.From {
			c.page = a.server.Pages[name]()
			if c.page == nil {
				t.Errorf("there is no template for the page %s", name)
				continue
			}
			c.template("layout", typ{rt: reflect.TypeOf(page)})
			for _, part := range c.page.Templates() {
				all[part.Name()] = true
			}
			if part := map[string]string{"batch": "elsewhere", "atbench": "benchwhole"}[name]; part != "" {
				c.template(part, typ{rt: reflect.TypeOf(page)}) // asked for alone
			}
			pages++
		}
	}
	if pages < 30 || c.named < 1000 {
		t.Errorf("%d pages, %d names looked at", pages, c.named)
	}
	for name := range all {
		if !c.reached[name] && name != "" && !strings.HasSuffix(name, ".html") {
			t.Errorf("no page is seen to use the template %s", name)
		}
	}
	// The checker sees what it is for.
	bad := template.Must(template.New("bad").Parse(
		`{{with .Frame}}{{range .Things}}{{.Nothing}}{{end}}{{end}}{{.Title}}{{$x := .Title}}{{$x.Y}}`))
	faults := &checker{page: bad, seen: map[string]bool{}, reached: map[string]bool{}}
	type thing struct{ Name string }
	faults.template("bad", typ{rt: reflect.TypeOf(struct {
		desk.Page
		Frame struct{ Things []thing }
	}{})})
	if fmt.Sprint(faults.told) != "[bad: there is no Nothing in web.thing bad: there is no Y in string]" {
		t.Errorf("told %q", faults.told)
	}
}

// typ is the type of a value in a template: a Go type, what a dict holds, or not known.
type typ struct {
	rt  reflect.Type
	rec map[string]typ
}

type checker struct {
	t       *testing.T
	page    *template.Template
	funcs   template.FuncMap
	seen    map[string]bool
	reached map[string]bool
	named   int
	told    []string
	name    string
}

func (c *checker) template(name string, dot typ) {
	found := c.page.Lookup(name)
	if found == nil || found.Tree == nil {
		c.tell("there is no template " + name)
		return
	}
	key := fmt.Sprintf("%p %v", found.Tree, dot)
	if c.seen[key] {
		return
	}
	c.seen[key] = true
	c.reached[name] = true
	was := c.name
	c.name = name
	c.list(found.Tree.Root, dot, map[string]typ{"$": dot})
	c.name = was
}

func (c *checker) tell(says string) {
	says = c.name + ": " + says
	if c.told = append(c.told, says); c.t != nil {
		c.t.Error(says)
	}
}

func (c *checker) list(l *parse.ListNode, dot typ, vars map[string]typ) {
	if l == nil {
		return
	}
	own := map[string]typ{}
	for k, v := range vars {
		own[k] = v
	}
	for _, n := range l.Nodes {
		switch n := n.(type) {
		case *parse.ActionNode:
			c.pipe(n.Pipe, dot, own)
		case *parse.IfNode:
			c.branch(&n.BranchNode, dot, own, dot)
		case *parse.WithNode:
			c.branch(&n.BranchNode, dot, own, c.pipe(n.Pipe, dot, own))
		case *parse.RangeNode:
			c.ranged(n, dot, own)
		case *parse.TemplateNode:
			with := typ{}
			if n.Pipe != nil {
				with = c.pipe(n.Pipe, dot, own)
			}
			c.template(n.Name, with)
		}
	}
}

func (c *checker) branch(n *parse.BranchNode, dot typ, vars map[string]typ, inner typ) {
	own := map[string]typ{}
	for k, v := range vars {
		own[k] = v
	}
	c.pipe(n.Pipe, dot, own)
	c.list(n.List, inner, own)
	c.list(n.ElseList, dot, own)
}

func (c *checker) ranged(n *parse.RangeNode, dot typ, vars map[string]typ) {
	own := map[string]typ{}
	for k, v := range vars {
		own[k] = v
	}
	of := c.pipe(n.Pipe, dot, own)
	key, elem := each(of.rt)
	switch d := n.Pipe.Decl; len(d) {
	case 1:
		own[d[0].Ident[0]] = elem
	case 2:
		own[d[0].Ident[0]], own[d[1].Ident[0]] = key, elem
	}
	c.list(n.List, elem, own)
	c.list(n.ElseList, dot, own)
}

// each gives the types of the keys and the members of what is ranged over.
func each(t reflect.Type) (key, elem typ) {
	if t != nil && t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	if t == nil {
		return
	}
	switch t.Kind() {
	case reflect.Slice, reflect.Array:
		return typ{rt: reflect.TypeOf(0)}, typ{rt: t.Elem()}
	case reflect.Map:
		return typ{rt: t.Key()}, typ{rt: t.Elem()}
	case reflect.Func: // an iterator
		yield := t.In(0)
		if yield.NumIn() == 2 {
			return typ{rt: yield.In(0)}, typ{rt: yield.In(1)}
		}
		return typ{}, typ{rt: yield.In(0)}
	}
	return
}

func (c *checker) pipe(p *parse.PipeNode, dot typ, vars map[string]typ) (out typ) {
	for _, cmd := range p.Cmds {
		out = c.command(cmd, dot, vars)
	}
	for _, v := range p.Decl {
		vars[v.Ident[0]] = out
	}
	return out
}

func (c *checker) command(cmd *parse.CommandNode, dot typ, vars map[string]typ) typ {
	args := make([]typ, len(cmd.Args))
	for i, a := range cmd.Args {
		args[i] = c.node(a, dot, vars)
	}
	id, ok := cmd.Args[0].(*parse.IdentifierNode)
	if !ok {
		return args[0]
	}
	switch id.Ident {
	case "dict":
		rec := map[string]typ{}
		for i := 1; i+1 < len(args); i += 2 {
			if s, ok := cmd.Args[i].(*parse.StringNode); ok {
				rec[s.Text] = args[i+1]
			}
		}
		return typ{rec: rec}
	case "index":
		_, elem := each(args[1].rt)
		return elem
	}
	if f := c.funcs[id.Ident]; f != nil {
		return typ{rt: reflect.TypeOf(f).Out(0)}
	}
	return typ{}
}

func (c *checker) node(n parse.Node, dot typ, vars map[string]typ) typ {
	switch n := n.(type) {
	case *parse.DotNode:
		return dot
	case *parse.FieldNode:
		return c.fields(dot, n.Ident)
	case *parse.VariableNode:
		return c.fields(vars[n.Ident[0]], n.Ident[1:])
	case *parse.ChainNode:
		return c.fields(c.node(n.Node, dot, vars), n.Field)
	case *parse.PipeNode:
		return c.pipe(n, dot, vars)
	case *parse.StringNode:
		return typ{rt: reflect.TypeOf("")}
	}
	return typ{}
}

func (c *checker) fields(of typ, names []string) typ {
	for _, name := range names {
		c.named++
		of = c.field(of, name)
	}
	return of
}

func (c *checker) field(of typ, name string) typ {
	if of.rec != nil {
		return of.rec[name] // what a dict leaves out is empty
	}
	t := of.rt
	if t == nil || t.Kind() == reflect.Interface {
		return typ{}
	}
	if m, ok := methodOf(t, name); ok {
		return typ{rt: m.Type.Out(0)}
	}
	if t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	if t.Kind() == reflect.Map {
		return typ{rt: t.Elem()}
	}
	if t.Kind() == reflect.Struct {
		if f, ok := t.FieldByName(name); ok {
			return typ{rt: f.Type}
		}
	}
	c.tell(fmt.Sprintf("there is no %s in %s", name, t))
	return typ{}
}

func methodOf(t reflect.Type, name string) (reflect.Method, bool) {
	if m, ok := t.MethodByName(name); ok {
		return m, true
	}
	if t.Kind() != reflect.Pointer {
		return reflect.PointerTo(t).MethodByName(name)
	}
	return reflect.Method{}, false
}
