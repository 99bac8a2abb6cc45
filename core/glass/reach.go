package glass

// Extremes are the lightest and the darkest of stacks: what neither of them exposes, none
// between them does.
type Extremes struct{ lightest, darkest *Stack }

// ExtremesOf returns the extremes of stacks, of which there is at least one.
func ExtremesOf(stacks []Stack) Extremes {
	e := Extremes{&stacks[0], &stacks[0]}
	least, most := stacks[0].Reach()
	for i := range stacks {
		from, to := stacks[i].Reach()
		if from < least {
			e.lightest, least = &stacks[i], from
		}
		if to > most {
			e.darkest, most = &stacks[i], to
		}
	}
	return e
}

// Miss reports whether every stack breaks because the light is too dim for the lightest of
// them, or too bright for the darkest. Where it is false, one may still break.
func (e Extremes) Miss(q *Question) bool {
	if o := Weigh(q, e.lightest); o.State(q) == Breaks && o.Dark(q) > 0 {
		return true
	}
	o := Weigh(q, e.darkest)
	return o.State(q) == Breaks && o.Error > q.Offset && o.Dark(q) == 0
}
