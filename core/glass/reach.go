package glass

// OutOfReach reports whether every stack breaks because the light is too dim for the
// lightest of them, or too bright for the darkest, which rules out those between. Where it
// is false, one may still break.
func OutOfReach(q *Question, stacks []Stack) bool {
	lightest, darkest := &stacks[0], &stacks[0]
	least, most := lightest.Reach()
	for i := range stacks {
		from, to := stacks[i].Reach()
		if from < least {
			lightest, least = &stacks[i], from
		}
		if to > most {
			darkest, most = &stacks[i], to
		}
	}
	if o := Weigh(q, lightest); o.State(q) == Breaks && o.Dark(q) > 0 {
		return true
	}
	o := Weigh(q, darkest)
	return o.State(q) == Breaks && o.Error > q.Offset && o.Dark(q) == 0
}
