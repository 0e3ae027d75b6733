package bench

// Taken is how long steps of one title took in all, and how long they were reckoned at.
type Taken struct {
	Title            string
	Seconds, Minutes float64 // taken, and reckoned
}

// Pace is how much longer or shorter than reckoned this maker takes: by title and in all.
type Pace struct {
	of  map[string]float64
	all float64
}

// sure is how many minutes of work must be recorded before they outweigh what was
// reckoned: one quick step does not make a quick maker.
const sure = 5.0

// PaceOf learns a pace from what was recorded. Nothing recorded is a pace of 1.
func PaceOf(taken []Taken) Pace {
	p := Pace{of: map[string]float64{}}
	ratio := func(seconds, minutes, otherwise float64) float64 {
		return min(4, max(0.25, (seconds/60+sure*otherwise)/(minutes+sure)))
	}
	s, m := 0.0, 0.0
	for _, t := range taken {
		s, m = s+t.Seconds, m+t.Minutes
	}
	p.all = ratio(s, m, 1)
	for _, t := range taken {
		p.of[t.Title] = ratio(t.Seconds, t.Minutes, p.all)
	}
	return p
}

// Of gives how long a step will take, in minutes.
func (p Pace) Of(s Step) float64 {
	k := p.all
	if of, ok := p.of[s.Title]; ok {
		k = of
	}
	if k == 0 {
		k = 1
	}
	return s.Minutes * k
}

// Minutes is how long all of them will take.
func (p Pace) Minutes(steps []Step) float64 {
	sum := 0.0
	for _, s := range steps {
		sum += p.Of(s)
	}
	return sum
}

// Whole is Minutes with the time to set up for each title, once.
func (p Pace) Whole(steps []Step) float64 {
	sum, known := p.Minutes(steps), map[string]bool{}
	for _, s := range steps {
		if !known[s.Title] && s.Minutes > 0 {
			sum += float64(Setup(s.Title))
		}
		known[s.Title] = true
	}
	return sum
}

// Learnt reports whether anything was recorded.
func (p Pace) Learnt() bool { return len(p.of) > 0 }
