package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"pinhole/core/practice"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// The practice of the season: some questions every few days, answered better and faster as it goes.
const (
	practiceDays    = 20
	practiceGapDays = 5
	practiceOfDay   = 6
)

func seedPractice(ctx context.Context, svc *service.Service) error {
	random := rand.New(rand.NewPCG(seasonSeed, 3))
	kinds := []practice.Kind{practice.Count, practice.Direction, practice.Labels, practice.Filter, practice.Target}
	for day := range practiceDays {
		at := svc.Now().AddDate(0, 0, (day-practiceDays-2)*practiceGapDays)
		for n := range practiceOfDay {
			part := float64(day) / practiceDays // of the way
			a := practice.Answered{
				At: at.Add(time.Duration(n) * 20 * time.Second), Kind: kinds[(day*practiceOfDay+n)%len(kinds)], Grade: 1, Seed: day*practiceOfDay + n,
				IsRight: random.Float64() < 0.55+0.4*part, Seconds: 14 - 8*part + 3*random.Float64(), Confidence: practice.ThinkSo,
			}
			switch {
			case a.IsRight && random.Float64() < 0.5, !a.IsRight && random.Float64() < 0.15:
				a.Confidence = practice.Sure
			case !a.IsRight && random.Float64() < 0.5, random.Float64() < 0.15:
				a.Confidence = practice.AGuess
			}
			if _, err := svc.Store.PracticeAnswers().Save(ctx, store.PracticeAnswer{Answered: a}); err != nil {
				return fmt.Errorf("practice of the season: %w", err)
			}
		}
	}
	return nil
}
