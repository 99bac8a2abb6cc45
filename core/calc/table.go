package calc

import (
	"context"
	"errors"
	"pinhole/core/card"
	"pinhole/core/day"
	"pinhole/core/fit"
	"pinhole/core/learn"
	"pinhole/core/practice"
	"pinhole/core/take"
	"reflect"
	"slices"

	"pinhole/core/problem"
	"pinhole/core/request"
)

// Operation is one computation of the contract.
type Operation struct {
	Name    string
	Summary string
	// Request and Answer are the struct types of the two JSON values.
	Request, Answer reflect.Type
	run             func(ctx context.Context, body []byte) (any, error)
}

// Run reads the JSON request, computes, and returns the answer, a value of the
// type Answer. Every error is a *problem.Document. Run keeps no state and is
// safe for concurrent use.
func (o Operation) Run(body []byte) (any, error) { return o.RunIn(context.Background(), body) }

// RunIn is Run, and gives up work that takes long when the context ends, with its error.
func (o Operation) RunIn(ctx context.Context, body []byte) (any, error) {
	answer, err := o.run(ctx, body)
	return answer, AsDocument(err)
}

// AsDocument returns err as the problem document it is or wraps: faults of
// fields make one. Other errors, and nil, are returned as they are.
func AsDocument(err error) error {
	var fault *problem.Fault
	if errors.As(err, &fault) {
		return problem.Invalid(*fault)
	}
	return err
}

func operation[Request, Answer any](name, summary string, compute func(Request) (Answer, error)) Operation {
	return long(name, summary, func(_ context.Context, r Request) (Answer, error) { return compute(r) })
}

// long is an operation that may take long.
func long[Request, Answer any](name, summary string, compute func(context.Context, Request) (Answer, error)) Operation {
	return Operation{
		Name: name, Summary: summary,
		Request: reflect.TypeFor[Request](), Answer: reflect.TypeFor[Answer](),
		run: func(ctx context.Context, body []byte) (any, error) {
			asked, err := request.Decode[Request](body)
			if err != nil {
				return nil, err
			}
			return compute(ctx, asked)
		},
	}
}

var operations = []Operation{
	operation("label", "Read the label on a filter's ring", ReadLabel),
	operation("shutter", "Find the camera's shutter for an angle, a time or a written form", Shutter),
	operation("reading", "Reduce a reading to the light of the scene", TakeReading),
	operation("solve", "Choose filters for a light and a setting", Solve),
	operation("step", "Find the filter by looking, without a meter", TakeStep),
	operation("auto", "Find what a camera's auto exposure does behind filters", OnAutomatic),
	operation("contrast", "Find what one exposure loses inside one frame", InOneFrame),
	operation("uptilt", "Find the camera tilt for another speed", TiltUp),
	operation("blur", "Measure blur and the step from frame to frame", Blur),
	operation("stabiliser", "Find the slowest shutter at which a stabiliser works", StabiliserFloor),
	operation("vibration", "Measure what vibration does to the picture", Vibrate),
	operation("lamps", "Find the shutters at which lights do not flicker", UnderLamps),
	operation("rates", "Draw a stick's curve and find where its pan has excess blur", StickRates),
	operation("window", "Weigh every demand on one shutter, and what excludes what", ShutterWindow),
	operation("sun", "Find where the sun stands, and its day", TheSun),
	operation("light", "Compute the daylight over a span of time", LightCurve),
	operation("polariser", "Find what a polariser does to sky and water", ThroughPolariser),
	operation("polariser-day", "Find when in a day a polariser does most for a view", PolariserDay),
	operation("fit", "Judge whether a ring seats on a barrel", fit.Fit),
	operation("hold", "Judge whether a filter stays on", fit.WillHold),
	operation("corners", "Find how dark rings make the corners", fit.DarkCorners),
	operation("seat", "Judge a filter on a rig from all that is known: test, clearance, hold, corners, balance, mass", fit.Seat),
	operation("balance", "Find the counterweight of a filter on a gimbal", fit.Balance),
	operation("mass", "Add up what a drone carries against a limit its pilot states", fit.AllUpMass),
	long("day", "Plan the filters of a day with as few swaps as the light allows", PlanDay),
	long("outing", "Compute the light of a day and plan the filters of its shots", day.Outing),
	long("card", "Say what to set, check and do on the spot, and what comes next", card.Card),
	operation("remeter", "Say what a reading on the spot makes of the filter that is on", card.Remeter),
	operation("passage", "Find the way through a dark stretch and out at its bright end", card.Through),
	long("year", "Compute the light of a place through a year, and the filters it calls for", day.Year),
	long("coverage", "Find the light a kit covers, and what to buy or carry", Coverage),
	operation("compare", "Weigh sets of filters against each other, what is not known counted as unknown", CompareSets),
	operation("stepped", "Plan a test that finds at which shutters a stabiliser works", SteppedTrial),
	operation("align", "Lay two takes over each other by how they move", take.Align),
	operation("question", "Ask something that is to be known by heart", practice.Ask),
	operation("mark", "Mark an answer to a question, with how the right one comes about", practice.Mark),
	operation("progress", "Tell how practice goes, and which grade fits", practice.TellProgress),
	operation("learn", "Find what a log of readings, tests and takes teaches", learn.Learn),
	operation("shot", "Answer a shot as it is typed: reading, shutter, filters and reasons", AnswerShot),
	operation("loop", "Say what a drawing of a shot at a setting shows", DescribeLoop),
	operation("ask", "Answer a shot said in one line: f2.8 1/1600 iso100 > 30 fps · 4 8 16 32", Ask),
	operation("say", "Write a shot as the line that says it", Say),
}

// Operations returns every computation, in the order of the contract.
func Operations() []Operation { return slices.Clone(operations) }

// Named returns the computation of that name.
func Named(name string) (Operation, bool) {
	i := slices.IndexFunc(operations, func(o Operation) bool { return o.Name == name })
	if i < 0 {
		return Operation{}, false
	}
	return operations[i], true
}
