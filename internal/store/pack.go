package store

import (
	"context"
	"database/sql"
)

// Pack is filters that are thought of buying. It is apart from the filters, so that none of
// it is ever glass at hand.
type Pack struct {
	Meta
	PackFields
}

// PackFields is what is known of a pack before it is bought.
type PackFields struct {
	Name    string   `json:"name" minLength:"1" maxLength:"80"`
	Labels  []string `json:"labels" minItems:"1" maxItems:"20" maxLength:"60" doc:"the texts on its rings"`
	Price   *float64 `json:"price,omitempty" minimum:"0" maximum:"1000000000" doc:"of all of it, in its buyer's money"`
	Cameras []string `json:"cameras" minItems:"1" maxItems:"100" doc:"ids of the cameras it would go on"`
}

// Packs returns the collection of packs.
func (s *Store) Packs() Collection[Pack] {
	return Collection[Pack]{s, table[Pack]{
		name: "packs",
		meta: func(p *Pack) *Meta { return &p.Meta },
		columns: func(p *Pack) []column {
			return []column{
				{"name", &p.Name},
				{"labels", asJSON{&p.Labels}},
				{"price", optional[float64]{&p.Price}},
				{"cameras", asJSON{&p.Cameras}},
			}
		},
	}}
}

// Buy moves a pack in the version that is meant into the kit: its filters are added and it is
// deleted, both or neither.
func (s *Store) Buy(ctx context.Context, id string, version int64, filters []Filter) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, f := range filters {
			if _, err := s.Filters().table.insert(ctx, tx, f, s.now()); err != nil {
				return err
			}
		}
		now := s.now()
		_, err := s.Packs().table.setDeleted(ctx, tx, id, version, &now, now)
		return err
	})
}
