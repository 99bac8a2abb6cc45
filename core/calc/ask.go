package calc

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/line"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// AskRequest is a shot said in one line, and the cameras that may be meant.
type AskRequest struct {
	Line    string      `json:"line" maxLength:"500" doc:"as in: f2.8 1/1600 iso100 > 30 fps · 4 8 16 32"`
	Cameras []AskCamera `json:"cameras,omitempty" maxItems:"50" doc:"the first is meant where the line names none"`
	Whole   bool        `json:"whole,omitempty" doc:"answer with all that a shot is told, too"`
	Anew    bool        `json:"anew,omitempty" doc:"the line is that of the camera's last shot, written anew: what it leaves out is gone"`
}

// AskCamera is a camera that a line may name.
type AskCamera struct {
	Name   string            `json:"name" minLength:"1" maxLength:"100"`
	Held   assemble.Held     `json:"held"`
	Titles map[string]string `json:"titles,omitempty" doc:"what its filters are called, by id"`
	Last   *assemble.Asked   `json:"last,omitempty" doc:"what its last shot asked"`
	// Settled is the same of all cameras of an owner, and counts for one that is not known, too.
	Settled *assemble.Preferences `json:"settled,omitempty" doc:"what its owner settled for new shots that say nothing else"`
}

// AskAnswer is what a line says, and what the shot comes to. Without light, or where what was
// read contradicts itself, there is no figure, the state is unknown, and words say why.
type AskAnswer struct {
	Line        string        `json:"line" doc:"the line in its canonical form; asked again, it is answered the same"`
	Parts       []line.Part   `json:"parts"`
	Unread      []line.Unread `json:"unread"`
	Camera      string        `json:"camera,omitempty" doc:"the known camera that is meant"`
	Missing     []string      `json:"missing,omitempty" doc:"labels of glass that the known camera does not have; in a line that is written anew it is left out, else it counts as at hand"`
	EV100       *stop.EV      `json:"ev100,omitempty"`
	LowEV100    *stop.EV      `json:"lowEv100,omitempty" doc:"in a range"`
	HighEV100   *stop.EV      `json:"highEv100,omitempty" doc:"in a range"`
	SpreadStops *stop.Stops   `json:"spreadStops,omitempty" doc:"how far the light may be off"`
	ShutterS    *stop.Shutter `json:"shutterS,omitempty"`
	ISO         *stop.ISO     `json:"iso,omitempty"`
	NeedStops   *stop.Stops   `json:"needStops,omitempty" doc:"glass needed at the highest light; negative where light is missing"`
	AskGlass
	Alternatives []AskGlass `json:"alternatives" doc:"with no glass at hand the printed strengths beside the nearest; else the next best, two at most"`
	IsAtHand     bool       `json:"isAtHand" doc:"the glass is there, and not only a strength that is made"`
	IfBrighter   *AskGlass  `json:"ifBrighter,omitempty" doc:"the glass for light brighter by the spread, where that is another"`
	IfDarker     *AskGlass  `json:"ifDarker,omitempty" doc:"the glass for light darker by the spread, where that is another"`
	State        string     `json:"state" enum:"holds,tight,breaks,unknown"`
	Setting      string     `json:"setting,omitempty" doc:"what to set, and what is left"`
	Gives        string     `json:"gives,omitempty" doc:"what gives way and by how much"`
	Words        string     `json:"words"`

	Explain []ExplainLine         `json:"explain,omitempty" doc:"with whole: each figure and how it came about"`
	Request *assemble.ShotRequest `json:"request,omitempty" doc:"with whole: the shot as it was asked"`
	Shot    *ShotAnswer           `json:"shot,omitempty" doc:"with whole: all that it is told"`
}

// unknownState is that of a shot that cannot be judged yet.
const unknownState = "unknown"

// AskGlass is glass by its labels, the one on the camera first, and what it leaves.
type AskGlass struct {
	Filters    []string    `json:"filters" doc:"labels; none is a bare lens"`
	ErrorStops *stop.Stops `json:"errorStops,omitempty" doc:"with ISO at base, positive brighter"`
	LeftStops  *stop.Stops `json:"leftStops,omitempty" doc:"after ISO or shutter has done what it can"`
}

// Ask answers ask: a line is read, what it leaves out is assumed and said, and the shot is
// judged as any other. Nothing a line holds is an error.
func Ask(r AskRequest) (*AskAnswer, error) {
	names := make([]string, len(r.Cameras))
	for i := range r.Cameras {
		names[i] = r.Cameras[i].Name
	}
	s := line.Read(r.Line, names...)
	a := &AskAnswer{Line: s.String(), AskGlass: AskGlass{Filters: []string{}}, Alternatives: []AskGlass{}, State: unknownState}
	camera := r.meant(s)
	request := s.Shot(line.Known{Held: camera.held(), LabelOf: camera.labelOf, Before: camera.last(), Settled: r.settled(), IsAnew: r.Anew})
	if a.Missing = missing(request, camera); r.Anew {
		leaveOut(request, a.Missing)
	}
	end := len([]rune(r.Line))
	for i := range s.Parts {
		if s.Parts[i].Assumed {
			s.Parts[i].Start, s.Parts[i].End = end, end
		}
	}
	a.Parts, a.Unread = s.Parts, s.Unread
	if camera != nil {
		a.Camera = camera.Name
	}
	if request.Light.Kind == "" {
		if r.Whole {
			a.Request = request
		}
		a.Words = "Say the light: a reading as f2 1/1250 iso50, EV 14, auto 1/2000, or the sky as sunny or overcast"
		return a, nil
	}
	return a, a.answer(r.Whole, request, camera)
}

// meant is the camera that a line names, or the first where it names none nor a kind of one.
func (r *AskRequest) meant(s *line.Sentence) *AskCamera {
	for i := range r.Cameras {
		if r.Cameras[i].Name == s.Camera {
			return &r.Cameras[i]
		}
	}
	if len(r.Cameras) == 0 || s.Archetype != "" {
		return nil
	}
	return &r.Cameras[0]
}

// missing returns the ids, which are labels, of the glass that a shot names and that its camera,
// if that is a known one, does not have.
func missing(r *assemble.ShotRequest, on *AskCamera) (labels []string) {
	if on == nil {
		return nil
	}
	for _, k := range r.Kit[len(on.Held.Kit):] { // what was named comes after what was there
		labels = append(labels, k.ID)
	}
	return labels
}

// leaveOut takes glass out of a shot. Where that was all there was to choose from, the rest of
// the kit is.
func leaveOut(r *assemble.ShotRequest, ids []string) {
	isOut := func(id string) bool { return slices.Contains(ids, id) }
	r.Kit = slices.DeleteFunc(slices.Clone(r.Kit), func(k assemble.KitFilter) bool { return isOut(k.ID) })
	r.Required = slices.DeleteFunc(slices.Clone(r.Required), isOut)
	if r.AtHand == nil || len(*r.AtHand) == 0 { // it was said that there is none
		return
	}
	left := slices.DeleteFunc(slices.Clone(*r.AtHand), isOut)
	if r.AtHand = &left; len(left) == 0 {
		r.AtHand = nil
	}
}

func (r *AskRequest) settled() *assemble.Preferences {
	if len(r.Cameras) == 0 {
		return nil
	}
	return r.Cameras[0].Settled
}

func (c *AskCamera) held() *assemble.Held {
	if c == nil {
		return nil
	}
	return &c.Held
}

func (c *AskCamera) last() (last assemble.Asked) {
	if c != nil && c.Last != nil {
		return *c.Last
	}
	return last
}

func (c *AskCamera) labelOf(id string) string {
	if c == nil {
		return id
	}
	return cmp.Or(c.Titles[id], id)
}

// answer judges the shot, with what is printed on the filters that are made where no glass is
// at hand.
func (a *AskAnswer) answer(isWhole bool, r *assemble.ShotRequest, camera *AskCamera) error {
	a.IsAtHand = len(r.Kit) > 0 || r.AtHand != nil // or it was said that there is none
	if !a.IsAtHand {
		r.Kit, r.AtHand = printed(), nil
	}
	given, nearest, err := a.best(r)
	if err != nil {
		return a.excused(err)
	}
	a.light(given)
	set := given.Solve.ShutterS
	a.ShutterS, a.ISO, a.NeedStops, a.State = &set, &given.Chosen.ISO, &given.Solve.NeedStops, string(given.State)
	a.AskGlass = glassOf(&given.Chosen, camera)
	a.Setting = settingOf(&given.Chosen)
	if a.Words = glassWords(a.Filters) + ", " + a.Setting; given.Gives != nil {
		a.Gives = capital(*given.Gives)
		a.Words += ". " + a.Gives
	}
	if a.IsAtHand {
		a.others(given, camera)
	} else if err := a.beside(r, nearest); err != nil {
		return a.excused(err)
	}
	if err := a.pocket(r, given, camera); err != nil {
		return a.excused(err)
	}
	if isWhole {
		a.Explain, a.Request, a.Shot = given.Explain, r, given
	}
	return nil
}

// best answers with the best of the glass at hand; with none, with the strength nearest to
// what is needed.
func (a *AskAnswer) best(r *assemble.ShotRequest) (given *ShotAnswer, nearest int, err error) {
	asked := *r
	if !a.IsAtHand {
		if nearest, err = a.nearest(r); err != nil {
			return nil, 0, err
		}
		asked = withPlaced(*r, nearest)
	}
	given, err = AnswerShot(asked)
	return given, nearest, err
}

// pocket answers with the spare filters of the shot; with no filter at hand, with the strengths
// that would be nearest at either end of the light.
func (a *AskAnswer) pocket(r *assemble.ShotRequest, given *ShotAnswer, camera *AskCamera) error {
	if a.IsAtHand {
		a.IfBrighter, a.IfDarker = given.IfBrighter.labelled(camera), given.IfDarker.labelled(camera)
		return nil
	}
	spread := given.Reading.SpreadStops
	if spread < glass.PocketSpread || given.Low != nil {
		return nil
	}
	for _, off := range []stop.Stops{spread, -spread} {
		there := *r
		there.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.3f", float64(given.Reading.EV100.Plus(off)))}}
		other, _, err := a.best(&there)
		if err != nil {
			return err
		}
		if g := glassOf(&other.Chosen, camera); !slices.Equal(g.Filters, a.Filters) {
			if off > 0 {
				a.IfBrighter = &g
			} else {
				a.IfDarker = &g
			}
		}
	}
	return nil
}

// excused says in words why a line has no answer. Only what is no fault of the line is an
// error.
func (a *AskAnswer) excused(err error) error {
	doc := AsDocument(err)
	p, isFault := doc.(*problem.Document)
	if !isFault {
		return err
	}
	a.Words = "Cannot be answered: " + p.Detail
	if len(p.Errors) > 0 { // a field's name says nothing to who wrote a line
		a.Words = fmt.Sprintf("Cannot be answered: %v: %s", p.Errors[0].Value, p.Errors[0].Allowed)
	}
	return nil
}

func (a *AskAnswer) light(given *ShotAnswer) {
	high := given.Reading
	a.SpreadStops = &high.SpreadStops
	if given.Low != nil {
		a.LowEV100, a.HighEV100 = &given.Low.EV100, &high.EV100
		return
	}
	a.EV100 = &high.EV100
}

// printed are the strengths that are made, as glass that might be had.
func printed() []assemble.KitFilter {
	var kit []assemble.KitFilter
	for _, s := range glass.Purchasable() {
		label := glass.Reading{Kind: glass.ND, Stops: s}.String()
		kit = append(kit, assemble.KitFilter{ID: label, Kind: glass.ND, Stops: s})
	}
	return kit
}

// placed is the i-th strength that is made, put on; none is a bare lens.
func placed(i int) *[]string {
	on := []string{}
	if i > 0 {
		on = append(on, printed()[i-1].ID)
	}
	return &on
}

// nearest is the strength that is made, 0 for none, that leaves the least; of two as near the
// lighter.
func (a *AskAnswer) nearest(r *assemble.ShotRequest) (best int, err error) {
	bare, err := AnswerShot(withPlaced(*r, 0))
	if err != nil {
		return 0, err
	}
	light := glass.Light{High: bare.Reading.EV100, Low: bare.Reading.EV100}
	if bare.Low != nil {
		light.Low = bare.Low.EV100
	}
	aim := bare.Offset + min(bare.Band.Bright, light.High.Above(light.Low)/2)
	left := func(i int) stop.Stops {
		s := stop.Stops(0)
		if i > 0 {
			s = printed()[i-1].Stops
		}
		return (bare.Chosen.ErrorStops - s - aim).Abs()
	}
	for i := range printed() {
		if left(i+1) < left(best) {
			best = i + 1
		}
	}
	return best, nil
}

func withPlaced(r assemble.ShotRequest, i int) assemble.ShotRequest {
	r.Placed = placed(i)
	return r
}

// beside answers with the strengths on either side of the nearest.
func (a *AskAnswer) beside(r *assemble.ShotRequest, nearest int) error {
	for _, i := range []int{nearest - 1, nearest + 1} {
		if i < 0 || i > len(printed()) {
			continue
		}
		given, err := AnswerShot(withPlaced(*r, i))
		if err != nil {
			return err
		}
		a.Alternatives = append(a.Alternatives, glassOf(&given.Chosen, nil))
	}
	return nil
}

// mostOthers is how many next best a line is answered with.
const mostOthers = 2

// others answers with what comes next of the glass at hand, and with what would serve if the
// light were off by its spread.
func (a *AskAnswer) others(given *ShotAnswer, camera *AskCamera) {
	for i := range given.Solve.Options {
		o := &given.Solve.Options[i]
		if len(a.Alternatives) < mostOthers && !slices.Equal(o.Filters, given.Chosen.Filters) {
			a.Alternatives = append(a.Alternatives, glassOf(o, camera))
		}
	}
}

func glassOf(o *Option, camera *AskCamera) AskGlass {
	g := AskGlass{Filters: []string{}, ErrorStops: &o.ErrorStops, LeftStops: &o.LeftStops}
	for _, id := range o.Filters {
		g.Filters = append(g.Filters, camera.labelOf(id))
	}
	return g
}

// labelled returns the spare by its labels; nil for none.
func (s *ShotSpare) labelled(camera *AskCamera) *AskGlass {
	if s == nil {
		return nil
	}
	g := AskGlass{Filters: []string{}, ErrorStops: &s.ErrorStops, LeftStops: &s.LeftStops}
	for _, id := range s.Filters {
		g.Filters = append(g.Filters, camera.labelOf(id))
	}
	return &g
}

// glassWords are what goes on the lens, by its labels.
func glassWords(filters []string) string {
	if len(filters) == 0 {
		return "No filter"
	}
	return strings.Join(filters, " + ")
}

// settingOf says what to set, and what is left: 1/60, ISO 100: 0.3 under.
func settingOf(o *Option) string {
	left := "on the meter"
	if o.LeftStops.Abs() >= 0.05 {
		left = fmt.Sprintf("%s %s", o.LeftStops.Abs(), map[bool]string{true: "over", false: "under"}[o.LeftStops > 0])
	}
	return fmt.Sprintf("%s, %s: %s", o.ShutterText, o.ISOText, left)
}

// capital is a text that begins a sentence.
func capital(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToUpper(first)) + text[size:]
}
