package take

import "gonum.org/v1/gonum/mat"

// equations are the normal equations of a weighted least-squares fit.
type equations struct {
	left  *mat.SymDense
	right *mat.VecDense
}

func newEquations(unknowns int) equations {
	return equations{mat.NewSymDense(unknowns, nil), mat.NewVecDense(unknowns, nil)}
}

// add adds one observation: its factors, and what they come to.
func (e equations) add(weight float64, row []float64) {
	n := len(row) - 1
	for i, v := range row[:n] {
		for j := i; j < n; j++ {
			e.left.SetSym(i, j, e.left.At(i, j)+weight*v*row[j])
		}
		e.right.SetVec(i, e.right.AtVec(i)+weight*v*row[n])
	}
}

// solved returns the unknowns; ok is false where the observations do not tell them.
func (e equations) solved() (v []float64, ok bool) {
	var factored mat.Cholesky
	if !factored.Factorize(e.left) || factored.Cond() > 1e14 {
		return nil, false
	}
	var x mat.VecDense
	if err := factored.SolveVecTo(&x, e.right); err != nil {
		return nil, false
	}
	return x.RawVector().Data, true
}
