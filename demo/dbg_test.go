package demo
import ("testing";"fmt";"brevium/core/plan";"brevium/core/brief";"strings")
func dump(p *plan.Plan) {
	for _, s := range p.Job().Steps { fmt.Printf("  [%s] %s/%s x%d\n", s.ID, s.Title, s.Piece, s.Count); for _, x := range s.Says { fmt.Println("      ", x) }
	 if s.Title == "Trim" || s.Title == "Score" { continue }
	 for _, f := range s.Frames { fmt.Println("        *", f.Look, f.Says) } }
}
func TestDbg(t *testing.T){
	for _, o := range [][]string{{"tray-lid"},{"carton","box.options.top","glued"},{"pleat-pouch","box.options.closure","ribbon"},{"hinged-lid","box.options.closure","magnet"},{"wrap-cover","box.options.closure","ribbon"},{"gable-cap"},{"chamfer-foot"},{"woven-basket","box.options.handle","brad"},{"fold-flat","box.options.closure","ribbon"},{"book-wrap"},{"corner-shells"},{"arched-box"},{"cross-fold"},{"strip-column"},{"pinch-top"},{"flap-box","box.options.closure","brad"}} {
		b := brief.New("mm"); b.Contents=nil; d := "40 mm"; if o[0]=="arched-box" { d = "60 mm" }
		b.Size = &brief.Size{Length:"70 mm",Width:"70 mm",Depth:brief.Text(d)}
		for k, v := range map[string]string{"tools.step":"1 mm","card.sheet":"a3","box.style":o[0],"card.join":"yes"} { b.Set(k,v) }
		for i:=1; i+1<len(o); i+=2 { b.Set(o[i],o[i+1]) }
		p := plan.Make(b, plan.Default)
		fmt.Println("=====", strings.Join(o, " "), p.Problems)
		if p.OK() { dump(p) }
	}
	all, _ := Projects()
	for _, b := range all { if strings.Contains(string(b.Name), "petals") || strings.Contains(string(b.Name), "Thank-you") || strings.Contains(string(b.Name),"Three small") { fmt.Println("=====", b.Name); if !b.IsSet() { dump(plan.Make(b, plan.Default)) } } }
}
