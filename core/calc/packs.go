package calc

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/problem"
)

// ConsideredPack is filters that somebody thinks of buying. They are no glass at hand.
type ConsideredPack struct {
	ID    string               `json:"id" minLength:"1" maxLength:"100"`
	Name  string               `json:"name" minLength:"1" maxLength:"80"`
	Price *float64             `json:"price,omitempty" minimum:"0" maximum:"1000000000" doc:"of all of it, in its buyer's money; left out where it is not known"`
	Kit   []assemble.KitFilter `json:"kit" minItems:"1" maxItems:"20" doc:"ids that no filter of the kit has"`
}

// PackGain is what a pack would add to the kit.
type PackGain struct {
	ID         string     `json:"id"`
	Name       string     `json:"name"`
	Price      *float64   `json:"price,omitempty"`
	Cells      int        `json:"cells" doc:"cells of the table without glass in which it would hold"`
	OpenCells  int        `json:"openCells" doc:"cells of the table without glass, darkness apart, before it"`
	Covers     float64    `json:"covers" doc:"the weight of wanted light that it covers and nothing did"`
	Open       float64    `json:"open" doc:"the weight of wanted light that stays open"`
	CellPrice  *float64   `json:"cellPrice,omitempty" doc:"the price of a cell that it closes; left out where it closes none or has no price"`
	Like       [][]string `json:"like" doc:"pairs of ids, of the pack and of the kit, of which one does for both"`
	IsCheapest bool       `json:"isCheapest" doc:"of those with a price, a cell comes cheapest by it"`
	Words      string     `json:"words"`
}

// considered says what each pack would add, the one that covers most of what is wanted first,
// then by the cells it closes, then the cheaper.
func (a *CoverageAnswer) considered(packs []ConsideredPack, inventory *glass.Inventory, b *assemble.Setup, open []glass.Question, wanted []glass.Wanted) error {
	taken := map[string]bool{}
	for i := range b.Kit {
		taken[b.Kit[i].ID] = true
	}
	for i := range packs {
		p := &packs[i]
		path := fmt.Sprintf("packs[%d]", i)
		pack, err := assemble.Filters(p.Kit)
		if err != nil {
			return problem.At(path, err)
		}
		for j := range pack {
			if taken[pack[j].ID] {
				return &problem.Fault{Field: fmt.Sprintf("%s.kit[%d].id", path, j), Value: pack[j].ID, Allowed: "an id that no filter of the kit or of another pack has"}
			}
			taken[pack[j].ID] = true
		}
		gain, err := inventory.GainOf(pack, open, wanted)
		if err != nil {
			return err
		}
		out := PackGain{ID: p.ID, Name: p.Name, Price: p.Price, Cells: gain.Cells, OpenCells: len(open), Covers: gain.Covers, Open: gain.Open, Like: [][]string{}}
		for _, pair := range gain.Like {
			out.Like = append(out.Like, []string{pack[pair[0]].ID, b.Kit[pair[1]].ID})
		}
		if p.Price != nil && gain.Cells > 0 {
			each := *p.Price / float64(gain.Cells)
			out.CellPrice = &each
		}
		out.Words = out.words(len(pack), len(wanted) > 0)
		a.Packs = append(a.Packs, out)
	}
	slices.SortStableFunc(a.Packs, func(x, y PackGain) int {
		return cmp.Or(cmp.Compare(y.Covers, x.Covers), cmp.Compare(y.Cells, x.Cells), comparePrices(x.Price, y.Price))
	})
	cheapest := -1
	priced := 0
	for i, p := range a.Packs {
		if p.CellPrice == nil {
			continue
		}
		if priced++; cheapest < 0 || *p.CellPrice < *a.Packs[cheapest].CellPrice {
			cheapest = i
		}
	}
	if priced > 1 { // one alone is compared with nothing
		a.Packs[cheapest].IsCheapest = true
	}
	return nil
}

// comparePrices puts what has no price last.
func comparePrices(a, b *float64) int {
	switch {
	case a != nil && b != nil:
		return cmp.Compare(*a, *b)
	case a != nil:
		return -1
	case b != nil:
		return 1
	}
	return 0
}

func (p *PackGain) words(filters int, isWanted bool) string {
	said := []string{}
	switch {
	case p.OpenCells == 0:
		said = append(said, "no cell is open for it to close")
	case p.Cells == 0:
		said = append(said, fmt.Sprintf("closes none of %d open cells", p.OpenCells))
	default:
		said = append(said, fmt.Sprintf("closes %d of %d open cells", p.Cells, p.OpenCells))
	}
	if isWanted && p.Covers+p.Open > 0 {
		said = append(said, fmt.Sprintf("covers %g of %g shots that nothing covers now", p.Covers, p.Covers+p.Open))
	}
	if n := len(p.Like); n > 0 {
		said = append(said, fmt.Sprintf("%d of its %d does what you own", n, filters))
	}
	return strings.Join(said, "; ")
}
