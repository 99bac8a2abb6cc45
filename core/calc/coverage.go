package calc

import (
	"cmp"
	"context"
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// CoverageRequest asks which light a kit covers, at the looks somebody uses, and
// what to buy or carry for the light they meet.
type CoverageRequest struct {
	Camera    assemble.Camera         `json:"camera"`
	Kit       []assemble.KitFilter    `json:"kit" maxItems:"200"`
	Looks     []CoverageLook          `json:"looks" minItems:"1" maxItems:"24"`
	LowEV100  stop.EV                 `json:"lowEv100" minimum:"-20" maximum:"40" doc:"the darkest column"`
	HighEV100 stop.EV                 `json:"highEv100" minimum:"-20" maximum:"40" doc:"the brightest column"`
	Columns   int                     `json:"columns" minimum:"2" maximum:"60"`
	Wanted    []WantedLight           `json:"wanted,omitempty" maxItems:"500" doc:"light that is really met, for buying and carrying"`
	Profile   *assemble.CameraProfile `json:"profile,omitempty" doc:"for wanted light whose whole shot is given"`
	Packs     []ConsideredPack        `json:"packs,omitempty" maxItems:"20" doc:"filters that are thought of buying"`
	assemble.Choices
}

// CoverageLook is a frame rate and a shutter.
type CoverageLook struct {
	FPS    string `json:"fps" maxLength:"12" doc:"25, 29.97; still"`
	Target string `json:"target" maxLength:"20" doc:"180°, or a time such as 1/100"`
}

// WantedLight is light met with a look.
type WantedLight struct {
	ID          string          `json:"id" minLength:"1" maxLength:"100"`
	FPS         string          `json:"fps" maxLength:"12"`
	Target      string          `json:"target" maxLength:"20"`
	LowEV100    stop.EV         `json:"lowEv100" minimum:"-20" maximum:"40"`
	HighEV100   stop.EV         `json:"highEv100" minimum:"-20" maximum:"40" doc:"the same as lowEv100 for one light"`
	SpreadStops stop.Stops      `json:"spreadStops,omitempty" minimum:"0" maximum:"10" doc:"widens the light that is carried for, where the kit serves that"`
	MaxLayers   int             `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers there; those of the request by default"`
	Weight      float64         `json:"weight,omitempty" minimum:"0.001" maximum:"1000" doc:"how often it is met; 1 by default"`
	Shot        *assemble.Asked `json:"shot,omitempty" doc:"all of the shot, which is then judged whole in place of the exposure of a look"`
}

// CoverageAnswer is the table, its gaps, and what would close them.
type CoverageAnswer struct {
	LightsEV100 []stop.EV     `json:"lightsEv100"`
	Rows        []CoverageRow `json:"rows"`
	Closer      *Purchase     `json:"closer,omitempty" doc:"the one filter that closes most of the gaps in the table, counted in cells"`
	// Idle are the filters that no cell uses.
	Idle     []string   `json:"idle" doc:"ids of filters that no cell uses"`
	Twins    [][]string `json:"twins" doc:"filters so alike that one does for all, within a sixth of a stop"`
	Single   *Purchase  `json:"single,omitempty" doc:"the one filter that closes most of what is wanted; left out where none helps"`
	Pair     *Purchase  `json:"pair,omitempty" doc:"the pair that closes most, where it closes more than the one"`
	Carry    []string   `json:"carry,omitempty" doc:"the fewest filters that serve all that the kit serves of what is wanted"`
	Hopeless []string   `json:"hopeless,omitempty" doc:"ids of wanted light that no glass of the kit serves"`
	Spare    string     `json:"spare,omitempty" doc:"the filter to have in the pocket beside them, should the light come out a stop brighter or darker"`
	Packs    []PackGain `json:"packs,omitempty" doc:"what each pack that is considered would add, the one that adds most first"`
	Words    []string   `json:"words"`
}

// CoverageRow is one look across the lights.
type CoverageRow struct {
	Name  string         `json:"name"`
	Cells []CoverageCell `json:"cells"`
	Gaps  []CoverageGap  `json:"gaps" doc:"where no glass holds"`
}

// CoverageGap is a stretch of light in which no glass holds.
type CoverageGap struct {
	FromEV100 stop.EV `json:"fromEv100"`
	ToEV100   stop.EV `json:"toEv100"`
	TooDark   bool    `json:"tooDark" doc:"light is missing: no glass would help"`
	Closes    string  `json:"closes,omitempty" doc:"as a label, the one filter that closes most of it; left out where none does"`
	Left      int     `json:"left" doc:"how many of its columns stay open with that"`
}

// CoverageCell is the best glass for one light.
type CoverageCell struct {
	Filters    []string              `json:"filters"`
	Settings   map[string]stop.Stops `json:"settings,omitempty"`
	Stops      stop.Stops            `json:"stops" doc:"of glass in all"`
	ErrorStops stop.Stops            `json:"errorStops"`
	State      glass.State           `json:"state"`
	Layers     int                   `json:"layers"`
}

// Purchase is glass to buy.
type Purchase struct {
	Stops  []stop.Stops `json:"stops"`
	Names  []string     `json:"names" doc:"as labels: ND64"`
	Closes float64      `json:"closes" doc:"the weight of wanted light that it serves and nothing did"`
	Open   float64      `json:"open" doc:"what stays open"`
}

// Coverage answers coverage. It gives up when the context ends.
func Coverage(ctx context.Context, r CoverageRequest) (*CoverageAnswer, error) {
	if r.HighEV100 <= r.LowEV100 {
		return nil, &problem.Fault{Field: "highEv100", Value: r.HighEV100, Allowed: "more than lowEv100"}
	}
	a := &CoverageAnswer{Idle: []string{}, Twins: [][]string{}, Words: []string{}}
	var questions []glass.Question
	var b *assemble.Setup
	for i, look := range r.Looks {
		var err error
		if b, err = r.bench(look, fmt.Sprintf("looks[%d]", i)); err != nil {
			return nil, err
		}
		questions = append(questions, b.Question)
		a.Rows = append(a.Rows, CoverageRow{Name: look.name(b.Question.Setting.Shutter)})
	}
	for i := range r.Columns {
		a.LightsEV100 = append(a.LightsEV100, r.LowEV100+(r.HighEV100-r.LowEV100)*stop.EV(i)/stop.EV(r.Columns-1))
	}
	used := map[string]bool{}
	inventory := glass.NewInventory(b.Kit, b.Rules, ctx.Err)
	var open []glass.Question
	for i, row := range glass.Cover(questions, a.LightsEV100, b.Stacks) {
		for _, cell := range row {
			out := CoverageCell{Filters: glass.IDs(cell.Best.Filters), Stops: cell.Best.Stops, ErrorStops: cell.Best.Error, State: cell.State, Layers: len(cell.Best.Filters)}
			if cell.Best.Turned != nil {
				out.Settings = map[string]stop.Stops{cell.Best.Turned.ID: cell.Best.Setting}
			}
			for _, id := range out.Filters {
				used[id] = used[id] || cell.State == glass.Holds
			}
			a.Rows[i].Cells = append(a.Rows[i].Cells, out)
		}
		a.Rows[i].Gaps = []CoverageGap{}
		gaps, err := inventory.Gaps(&questions[i], row, a.LightsEV100)
		if err != nil {
			return nil, err
		}
		for _, g := range gaps {
			gap := CoverageGap{FromEV100: a.LightsEV100[g.From], ToEV100: a.LightsEV100[g.To], TooDark: g.Dark, Left: g.Left}
			if g.Closes > 0 {
				gap.Closes = glass.LabelOf(g.Closes)
			}
			a.Rows[i].Gaps = append(a.Rows[i].Gaps, gap)
			for j := g.From; j <= g.To && !g.Dark; j++ {
				at := questions[i]
				at.Light = glass.Light{Low: a.LightsEV100[j], High: a.LightsEV100[j]}
				open = append(open, at)
			}
		}
	}
	a.compare(b, used)
	closes, closed, err := inventory.Closer(open)
	if err != nil {
		return nil, err
	}
	if closed > 0 {
		a.Closer = purchaseOf(glass.Purchase{Stops: []stop.Stops{closes}, Closes: float64(closed), Open: float64(len(open) - closed)})
	}
	wanted, err := a.want(&r, inventory, b)
	if err != nil {
		return nil, err
	}
	return a, a.considered(r.Packs, inventory, b, open, wanted)
}

func (l CoverageLook) name(t stop.Shutter) string {
	return fmt.Sprintf("%s fps, %s (%v)", l.FPS, l.Target, t)
}

// bench returns the bench of one look.
func (r *CoverageRequest) bench(look CoverageLook, path string) (*assemble.Setup, error) {
	shot := assemble.ShotRequest{Camera: r.Camera, Kit: r.Kit, Look: assemble.ShotLook(look), Choices: r.Choices}
	b, err := shot.Setup()
	if err == nil {
		return b, nil
	}
	if fault, ok := err.(*problem.Fault); ok && len(fault.Field) > 5 && fault.Field[:5] == "look." {
		fault.Field = path + fault.Field[4:]
	}
	return nil, err
}

// compare names the filters that no cell uses and those that are alike.
func (a *CoverageAnswer) compare(b *assemble.Setup, used map[string]bool) {
	for i := range b.Kit {
		f := &b.Kit[i]
		if f.Unfit || f.Kind != glass.ND {
			continue
		}
		if !used[f.ID] {
			a.Idle = append(a.Idle, f.ID)
		}
		for j := range b.Kit[:i] {
			if g := &b.Kit[j]; g.Kind == glass.ND && !g.Unfit && (f.Stops-g.Stops).Abs() < glass.TwinStops {
				a.Twins = append(a.Twins, []string{g.ID, f.ID})
			}
		}
	}
}

// want says what to buy and what to carry for the light that is met, and returns that light.
func (a *CoverageAnswer) want(r *CoverageRequest, inventory *glass.Inventory, b *assemble.Setup) (wanted []glass.Wanted, err error) {
	if len(r.Wanted) == 0 {
		return nil, nil
	}
	var planned []glass.Wanted // with its spread
	for i, w := range r.Wanted {
		path := fmt.Sprintf("wanted[%d]", i)
		if w.HighEV100 < w.LowEV100 {
			return nil, &problem.Fault{Field: path + ".highEv100", Value: w.HighEV100, Allowed: "at least lowEv100"}
		}
		met, err := r.met(&w, path)
		if err != nil {
			return nil, err
		}
		spread := met
		spread.Question.Light = glass.Light{Low: w.LowEV100.Plus(-w.SpreadStops), High: w.HighEV100.Plus(w.SpreadStops)}
		wanted, planned = append(wanted, met), append(planned, spread)
	}
	single, pair, err := inventory.Buy(wanted)
	if err != nil {
		return nil, err
	}
	a.Single = purchaseOf(single)
	if pair.Closes > single.Closes {
		a.Pair = purchaseOf(pair)
	}
	carried, hopeless, err := a.carry(inventory, b, wanted, planned)
	if err != nil {
		return nil, err
	}
	spare, _, found, err := inventory.Spare(carried, wanted, swing)
	if err != nil {
		return nil, err
	}
	if found {
		a.Spare = b.Kit[spare].ID
	}
	for _, i := range hopeless {
		a.Hopeless = append(a.Hopeless, r.Wanted[i].ID)
	}
	if n := len(r.Wanted) - len(hopeless); a.Single == nil && len(hopeless) > 0 {
		a.Words = append(a.Words, fmt.Sprintf("covers %d of %d; no single ND adds more: the rest lacks light, ranges too wide, or breaks by something other than exposure", n, len(r.Wanted)))
	} else {
		a.Words = append(a.Words, fmt.Sprintf("covers %d of %d", n, len(r.Wanted)))
	}
	return wanted, nil
}

// met returns wanted light as it is met, with its whole shot where that is given.
func (r *CoverageRequest) met(w *WantedLight, path string) (glass.Wanted, error) {
	out := glass.Wanted{Weight: cmp.Or(w.Weight, 1), Layers: w.MaxLayers}
	light := glass.Light{Low: w.LowEV100, High: w.HighEV100}
	if w.Shot == nil {
		at, err := r.bench(CoverageLook{w.FPS, w.Target}, path)
		if err == nil {
			out.Question, out.Question.Light = at.Question, light
		}
		return out, err
	}
	held := assemble.Held{Optics: r.Camera, Kit: r.Kit, Profile: r.Profile}
	ready, err := held.Shot(*w.Shot).AssembleIn(light)
	if err != nil {
		return out, problem.At(path+".shot", err)
	}
	aim, err := ready.Scene.Aim()
	if err != nil {
		return out, problem.At(path+".shot", err)
	}
	out.Question = aim.Weigh(light).Question
	out.Judge = func(q glass.Question, o glass.Option) glass.State { return aim.Judge(q, o).State }
	return out, nil
}

// swing is how far the light may come out off the plan, as a partly cloudy sky
// does (model, section 9).
const swing = stop.Stops(1)

// carry finds the fewest filters for the light with its spread, where the kit
// serves that at all, and the light that it does not serve even without.
func (a *CoverageAnswer) carry(inventory *glass.Inventory, b *assemble.Setup, wanted, planned []glass.Wanted) (carried, hopeless []int, err error) {
	wide, err := inventory.Unserved(planned)
	if err != nil {
		return nil, nil, err
	}
	for _, i := range wide {
		planned[i] = wanted[i]
	}
	carried, hopeless, err = inventory.Carry(planned)
	for _, i := range carried {
		a.Carry = append(a.Carry, b.Kit[i].ID)
	}
	return carried, hopeless, err
}

func purchaseOf(p glass.Purchase) *Purchase {
	if p.Closes == 0 {
		return nil
	}
	out := &Purchase{Stops: p.Stops, Closes: p.Closes, Open: p.Open}
	for _, s := range p.Stops {
		out.Names = append(out.Names, glass.LabelOf(s))
	}
	return out
}
