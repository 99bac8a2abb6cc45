package store

// Shoot is a day or a weekend of shots.
type Shoot struct {
	Meta
	ShootFields
}

// ShootFields is what is planned for a shoot.
type ShootFields struct {
	Name  string `json:"name" minLength:"1" maxLength:"80"`
	Place string `json:"place,omitempty" maxLength:"120"`
	Notes string `json:"notes,omitempty" maxLength:"2000"`
}

// Shoots returns the collection of shoots.
func (s *Store) Shoots() Collection[Shoot] {
	return Collection[Shoot]{s, table[Shoot]{
		name:    "shoots",
		columns: []string{"name", "place", "notes"},
		meta:    func(s *Shoot) *Meta { return &s.Meta },
		fields:  func(s *Shoot) []any { return []any{&s.Name, &s.Place, &s.Notes} },
	}}
}
